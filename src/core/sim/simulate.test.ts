import { file, page, ROUND } from '../../test-support/programs.ts';
import type { LinkHint, LoadProgram, MarkupItem } from '../load/types.ts';
import { REFERENCE_COSTS } from './conditions.ts';
import { simulate } from './simulate.ts';
import type { Timeline } from './types.ts';

const conditions = ROUND;

const text: LoadProgram['parts'][number] = {
  id: 'text',
  name: 'text',
  place: 'first screen',
  drawnBy: 'document',
  interactive: false,
  needs: [],
  after: [],
  fill: [],
  renderMs: 0,
  onItsOwn: true,
};

function request(timeline: Timeline, address: string) {
  return timeline.requests.find((r) => r.address === address)!;
}

function link(rel: LinkHint['rel'], resource: number, more: Partial<LinkHint> = {}): LinkHint {
  return { rel, resource, chosen: true, ...more };
}

describe('simulate', () => {
  it('takes connect, a round trip and server time to the document, then paints after the frame', () => {
    const timeline = simulate(page([{ at: 4000, tag: 'text', part: 0 }], [], { parts: [text] }), conditions);
    const document = timeline.requests[0];
    // It begins to connect before the page counts.
    expect(document.sent).toBeGreaterThan(193);
    expect(document.sent).toBeLessThan(200);
    expect(document.firstByte - document.sent).toBeGreaterThan(150);
    expect(document.firstByte - document.sent).toBeLessThan(161);
    const { firstContent, domInteractive, load } = timeline.moments;
    expect(domInteractive - document.firstByte).toBeCloseTo(44, 0);
    expect(firstContent - domInteractive).toBeCloseTo(24, 0);
    expect(load).toBeGreaterThan(domInteractive);
    expect(timeline.stopped).toBeUndefined();
  });

  it('runs a blocking script before the body, deferred ones after parsing in order, async ones when they come', () => {
    const timeline = simulate(
      page(
        [
          { at: 100, tag: 'script', group: 0, mode: 'blocking' },
          { at: 200, tag: 'script', group: 1, mode: 'defer' },
          { at: 300, tag: 'script', group: 2, mode: 'module' },
          { at: 400, tag: 'script', group: 3, mode: 'async' },
          { at: 1000, tag: 'text', part: 0 },
        ],
        [
          file('/block.js', { cpuMs: 30, serverMs: 200 }),
          file('/late.js', { bytes: 90_000, cpuMs: 5, serverMs: 400 }),
          file('/module.js', { cpuMs: 5 }),
          file('/async.js', { cpuMs: 5, serverMs: 10 }),
        ],
        { parts: [text] },
      ),
      conditions,
    );
    const ran = (a: string) => request(timeline, a).evaluated;
    expect(timeline.moments.bodyInserted).toBeGreaterThanOrEqual(ran('/block.js'));
    expect(ran('/module.js')).toBeGreaterThan(ran('/late.js'));
    expect(timeline.moments.domContentLoaded).toBeGreaterThan(ran('/module.js'));
    expect(ran('/async.js')).toBeLessThan(ran('/module.js'));
    expect(timeline.moments.firstContent).toBeGreaterThan(ran('/block.js'));
  });

  it('holds first content until the style sheet is there, and scripts behind it too', () => {
    const timeline = simulate(
      page(
        [
          { at: 100, tag: 'link', ...link('stylesheet', 0, { chosen: false }) },
          { at: 200, tag: 'script', group: 1, mode: 'blocking' },
          { at: 1000, tag: 'text', part: 0 },
        ],
        [file('/a.css', { type: 'style', serverMs: 400 }), file('/b.js')],
        { parts: [text] },
      ),
      conditions,
    );
    const style = request(timeline, '/a.css');
    expect(request(timeline, '/b.js').end).toBeLessThan(style.end);
    expect(request(timeline, '/b.js').evaluated).toBeGreaterThan(style.end);
    expect(timeline.moments.firstContent).toBeGreaterThan(style.end);
  });

  it('asks for a listed group at once, and discovers the same group hop by hop', () => {
    const files = [file('/leaf.js'), file('/middle.js', { imports: [0] }), file('/top.js', { imports: [1] })];
    const hops = (loader: 'listed' | 'discovered') =>
      simulate(
        page([{ at: 100, tag: 'script', group: 0, mode: 'module' }], files, {
          groups: [{ name: 'top', resources: [0, 1, 2], after: [], loader }],
        }),
        conditions,
      ).requests.map((r) => r.hop);
    expect(hops('listed')).toEqual([0, 1, 1, 1]);
    expect(hops('discovered')).toEqual([0, 1, 2, 3]);
  });

  it('gains a round trip from a preload, and marks it as hinted', () => {
    const build = (hints: MarkupItem[]) =>
      page(
        [...hints, { at: 500, tag: 'script', group: 0, mode: 'module' }],
        [
          file('/entry.js', { follow: [{ when: 'eval', do: { kind: 'import', group: 1 } }] }),
          file('/part.js', { cpuMs: 3 }),
        ],
      );
    const plain = simulate(build([]), conditions);
    const hinted = simulate(build([{ at: 100, tag: 'link', ...link('modulepreload', 1) }]), conditions);
    expect(request(plain, '/part.js').role).toBe('needed');
    expect(request(hinted, '/part.js').role).toBe('hinted');
    const gain = request(plain, '/part.js').evaluated - request(hinted, '/part.js').evaluated;
    expect(gain).toBeGreaterThan(95);
    expect(gain).toBeLessThan(115);
  });

  it('tells a prefetch from a preload that nobody uses', () => {
    const timeline = simulate(
      page(
        [
          { at: 100, tag: 'link', ...link('prefetch', 0) },
          { at: 200, tag: 'link', ...link('preload', 1, { as: 'script' }) },
        ],
        [file('/later.js', { purpose: 'later' }), file('/never.js')],
      ),
      conditions,
    );
    expect(request(timeline, '/later.js').role).toBe('in case');
    expect(request(timeline, '/never.js').role).toBe('wasted');
  });

  it('sends early hints during server time; HTTP/1.1 ignores them', () => {
    const program = page(
      [{ at: 100, tag: 'link', ...link('stylesheet', 0, { chosen: false }) }],
      [file('/a.css', { type: 'style' })],
    );
    program.document.serverMs = 500;
    program.document.earlyHints = [link('preload', 0, { as: 'style' })];
    const early = simulate(program, conditions);
    expect(request(early, '/a.css').end).toBeLessThan(early.requests[0].firstByte);
    const h1 = simulate(program, { ...conditions, link: { ...conditions.link, protocol: 'h1' } });
    expect(request(h1, '/a.css').discovered).toBeGreaterThan(h1.requests[0].firstByte);
  });

  it('starts Link header preloads as tags do, and reads a streamed document piece by piece', () => {
    const program = page(
      [
        { at: 100, tag: 'script', group: 0, mode: 'async' },
        { at: 4000, tag: 'script', group: 1, mode: 'async' },
      ],
      [file('/first.js'), file('/second.js'), file('/header.js')],
    );
    program.document.linkHeader = [link('preload', 2, { as: 'script' })];
    program.document.flush = [
      { upTo: 1000, atMs: 0 },
      { upTo: 5000, atMs: 700 },
    ];
    const timeline = simulate(program, conditions);
    expect(request(timeline, '/second.js').discovered - request(timeline, '/first.js').discovered).toBeGreaterThan(600);
    expect(request(timeline, '/header.js').discovered).toBeCloseTo(request(timeline, '/first.js').discovered, 3);
    expect(request(timeline, '/header.js').cause.kind).toBe('header');
  });

  it('comes to its load event once asynchronous and injected scripts have run, not when they have come', () => {
    const injected = file('/injected.js', { cpuMs: 500 });
    const inject = { when: 'eval', do: { kind: 'script', group: 1, ordered: false } } as const;
    const timeline = simulate(
      page(
        [{ at: 100, tag: 'script', group: 0, mode: 'async' }],
        [file('/async.js', { cpuMs: 300, follow: [inject] }), injected],
      ),
      conditions,
    );
    const ran = request(timeline, '/injected.js').evaluated;
    expect(ran - request(timeline, '/injected.js').end).toBeGreaterThan(500);
    expect(timeline.moments.load).toBeGreaterThan(ran);
    expect(timeline.moments.load).toBeLessThan(ran + 5);
  });

  it('waits for its moment with every trigger', () => {
    const later = ['paint', 'idle', 'load', 'quiet', 'timer'] as const;
    const files = later.map((when) => file(`/${when}.js`, { purpose: 'later' }));
    const entry = file('/entry.js', {
      follow: later.map((when, i) => ({
        when,
        ...(when === 'timer' ? { delayMs: 900 } : {}),
        do: { kind: 'import', group: i },
      })),
    });
    const timeline = simulate(
      page(
        [
          { at: 100, tag: 'script', group: later.length, mode: 'module' },
          { at: 900, tag: 'text', part: 0 },
        ],
        [...files, entry],
        { parts: [text] },
      ),
      conditions,
    );
    const asked = (when: string) => request(timeline, `/${when}.js`).discovered;
    const ran = request(timeline, '/entry.js').evaluated;
    expect(asked('paint')).toBeGreaterThan(timeline.moments.firstContent);
    expect(asked('idle')).toBeGreaterThan(ran + 15);
    expect(asked('load')).toBeGreaterThanOrEqual(timeline.moments.load);
    expect(asked('quiet')).toBeGreaterThan(asked('load'));
    expect(asked('timer')).toBeCloseTo(ran + 900 + REFERENCE_COSTS.importDelay, 3);
    // Nothing that shows needs it.
    expect(request(timeline, '/paint.js').role).toBe('in case');
  });

  it('does a thing for a narrow screen only on one', () => {
    const program = page(
      [{ at: 100, tag: 'script', group: 0, mode: 'module' }],
      [
        file('/entry.js', { follow: [{ when: 'eval', media: { maxWidth: 640 }, do: { kind: 'import', group: 1 } }] }),
        file('/menu.js'),
      ],
    );
    expect(request(simulate(program, conditions), '/menu.js')).toBeUndefined();
    const phone = { ...conditions, device: { ...conditions.device, viewport: { width: 390, height: 800 } } };
    expect(request(simulate(program, phone), '/menu.js')).toBeDefined();
  });

  it('gives a visitor who hovers first a head start, and nothing to wait for the second time', () => {
    const build = (leadMs: number) =>
      page([], [file('/panel.js', { cpuMs: 10, purpose: 'later' })], {
        steps: [
          {
            id: 'open',
            kind: 'hover',
            atMs: 2000,
            leadMs,
            ready: [0],
            do: [{ kind: 'link', hint: link('prefetch', 0) }],
            clickDo: [{ kind: 'import', group: 0 }],
          },
          { id: 'again', kind: 'click', atMs: 4000, do: [{ kind: 'import', group: 0 }], ready: [0] },
        ],
      });
    const wait = (leadMs: number) => {
      const step = simulate(build(leadMs), conditions).steps.find((s) => s.id === 'open')!;
      return step.ready - step.at;
    };
    const full = wait(0);
    expect(full).toBeGreaterThan(110);
    expect(wait(50)).toBeCloseTo(full - 50, 0);
    expect(wait(1000)).toBeLessThan(20);
    const again = simulate(build(0), conditions).steps.find((s) => s.id === 'again')!;
    expect(again.ready - again.at).toBeLessThan(1);
  });

  it('answers from the cache on a return, but asks for what may not be kept', () => {
    const program = page(
      [
        { at: 100, tag: 'script', group: 0, mode: 'async' },
        { at: 200, tag: 'script', group: 1, mode: 'async' },
        { at: 300, tag: 'script', group: 2, mode: 'async' },
      ],
      [
        file('/kept.js', { bytes: 90_000 }),
        file('/checked.js', { bytes: 90_000, cache: 'revalidate' }),
        file('/never.js', { cache: 'no-store' }),
      ],
    );
    const timeline = simulate(program, { ...conditions, cache: 'returning' });
    expect(request(timeline, '/kept.js').bytes).toBe(0);
    expect(request(timeline, '/kept.js').end - request(timeline, '/kept.js').discovered).toBeLessThan(20);
    expect(request(timeline, '/checked.js').bytes).toBe(0);
    expect(request(timeline, '/checked.js').end - request(timeline, '/checked.js').discovered).toBeGreaterThan(100);
    expect(request(timeline, '/never.js').bytes).toBe(1000);
  });

  it('asks about everything that is stale, and fetches again what a deploy has changed', () => {
    const program = page(
      [
        { at: 100, tag: 'script', group: 0, mode: 'async' },
        { at: 200, tag: 'script', group: 1, mode: 'async' },
      ],
      [file('/package.js', { bytes: 90_000, chunk: 0 }), file('/own.js', { bytes: 40_000, chunk: 1, changes: true })],
    );
    const bytes = (cache: 'stale' | 'deployed' | 'rebuilt') => {
      const timeline = simulate(program, { ...conditions, cache });
      return ['/package.js', '/own.js'].map((address) => request(timeline, address).bytes);
    };
    expect(bytes('stale')).toEqual([0, 0]);
    expect(bytes('deployed')).toEqual([0, 40_000]);
    expect(bytes('rebuilt')).toEqual([90_000, 40_000]);
    const stale = simulate(program, { ...conditions, cache: 'stale' });
    expect(request(stale, '/own.js').end - request(stale, '/own.js').sent).toBeGreaterThan(conditions.link.rttMs);
  });

  it('runs scripts injected by script, inline ones and busy work on one thread', () => {
    const program = page(
      [
        {
          at: 100,
          tag: 'inline',
          name: 'start',
          cpuMs: 20,
          follow: [
            { when: 'eval', do: { kind: 'script', group: 0, ordered: true } },
            { when: 'eval', do: { kind: 'cpu', ms: 200, name: 'busy' } },
            { when: 'eval', do: { kind: 'fetch', resource: 1 } },
            { when: 'eval', do: { kind: 'img', resource: 2 } },
            { when: 'eval', do: { kind: 'link', hint: link('preconnect', -1, { origin: 'https://far.example' }) } },
          ],
        },
      ],
      [
        file('/injected.js', { cpuMs: 4 }),
        file('/data', { type: 'fetch', follow: [{ when: 'eval', do: { kind: 'cpu', ms: 7, name: 'use data' } }] }),
        file('/pic.jpg', { type: 'image' }),
      ],
    );
    const timeline = simulate(program, conditions);
    const spans = timeline.tasks.map((t) => [t.start, t.end]).sort((a, b) => a[0] - b[0]);
    for (let i = 1; i < spans.length; i++) expect(spans[i][0]).toBeGreaterThanOrEqual(spans[i - 1][1] - 1e-9);
    expect(timeline.tasks.map((t) => t.name)).toEqual(expect.arrayContaining(['busy', 'use data', '/injected.js']));
    expect(timeline.moments.load).toBeGreaterThanOrEqual(request(timeline, '/injected.js').end);
  });

  it('gives the same timeline for the same input', () => {
    const program = page(
      [{ at: 100, tag: 'script', group: 0, mode: 'module' }],
      [file('/a.js', { bytes: 50_000, cpuMs: 5 })],
    );
    expect(simulate(program, conditions)).toEqual(simulate(program, conditions));
  });

  it('never ends later on a single chain when the link gets better or the files smaller', () => {
    const end = (bytes: number, downKbps: number, rttMs: number) => {
      const program = page(
        [{ at: 100, tag: 'script', group: 0, mode: 'module' }],
        [
          file('/a.js', { bytes, cpuMs: 5, follow: [{ when: 'eval', do: { kind: 'import', group: 1 } }] }),
          file('/b.js', { bytes, cpuMs: 5 }),
        ],
      );
      return request(simulate(program, { ...conditions, link: { ...conditions.link, downKbps, rttMs } }), '/b.js')
        .evaluated;
    };
    for (const bytes of [200, 20_000, 300_000]) {
      for (const kbps of [400, 2000, 20_000]) {
        for (const rtt of [10, 100, 400]) {
          const now = end(bytes, kbps, rtt);
          expect(end(bytes, kbps * 1.5, rtt)).toBeLessThanOrEqual(now + 1e-6);
          expect(end(bytes, kbps, rtt * 0.7)).toBeLessThanOrEqual(now + 1e-6);
          expect(end(bytes * 0.8, kbps, rtt)).toBeLessThanOrEqual(now + 1e-6);
        }
      }
    }
  });

  it.each([
    [{ link: { ...conditions.link, downKbps: 0 } }, 'link.downKbps must be a number above 0'],
    [{ link: { ...conditions.link, rttMs: 120_000 } }, 'link.rttMs must lie between'],
    [{ device: { ...conditions.device, cpuFactor: Number.NaN } }, 'device.cpuFactor'],
  ])('refuses conditions that mean nothing (%#)', (wrong, words) => {
    expect(() => simulate(page([], []), { ...conditions, ...wrong })).toThrow(words);
  });

  it('the load event waits for images of the document, and for none that is lazy', () => {
    const image = (lazy: boolean): MarkupItem => ({ at: 4000, tag: 'img', resource: 0, lazy, inView: true });
    const slow = [file('/pic.jpg', { type: 'image', serverMs: 2000 })];
    const eager = simulate(page([image(false)], slow), conditions);
    expect(eager.moments.load).toBeGreaterThanOrEqual(request(eager, '/pic.jpg').end);
    const lazy = simulate(page([image(true)], slow), conditions);
    expect(request(lazy, '/pic.jpg').end).toBeGreaterThan(2000);
    expect(lazy.moments.load).toBeLessThan(request(lazy, '/pic.jpg').sent + 100);
  });
});
