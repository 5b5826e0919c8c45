import { file, page, ROUND, screenPart } from '../../test-support/programs.ts';
import type { CompiledStep, Interaction, LoadProgram, ScreenPart, VisitDocument } from '../load/types.ts';
import { experienced } from '../visits/experience.ts';
import { simulateVisit } from './simulate-visit.ts';

/** With ROUND: 1000 bytes take 1 ms on the link, a round trip 100 ms. */
const KB = 14;

/** Drawing costs nothing here, so that waits can be worked out by hand. */
const part = (id: string, more: Partial<ScreenPart> = {}) => screenPart(id, { renderMs: 0, ...more });

function interaction(id: string, more: Partial<Interaction>): Interaction {
  return { id, name: id, kind: 'act', hides: [], shows: [], until: 'shown', first: [], approach: [], act: [], ...more };
}

function step(interaction: number, more: Partial<CompiledStep> = {}): CompiledStep {
  return { index: 0, does: 'interaction', interaction, conditions: [], dwellMs: 3000, leadMs: 0, ...more };
}

function visitOf(program: LoadProgram, steps: CompiledStep[], ...more: VisitDocument[]) {
  const first: VisitDocument = { program, begins: 'landing', awayMs: 0, main: 0, conditions: [], steps };
  return { documents: [first, ...more] };
}

/** A page that opens a dialog of 14 kB, which fits in the first window of a connection. */
function dialogPage(approach: Interaction['approach'], more: Partial<ScreenPart> = {}): LoadProgram {
  const ask = { when: 'eval', do: { kind: 'import', group: 1 } } as const;
  const draw = { when: 'eval', do: { kind: 'render', part: 1 } } as const;
  return page(
    [{ at: 100, tag: 'script', group: 0, mode: 'module' }],
    [file('/entry.js'), file('/dialog.js', { bytes: KB * 1000, changes: true, purpose: 'later' })],
    {
      parts: [
        part('page', { needs: [{ resource: 0, state: 'evaluated' }] }),
        part('dialog', { onItsOwn: false, place: 'later', needs: [{ resource: 1, state: 'evaluated' }], ...more }),
      ],
      interactions: [interaction('dialog', { hides: [1], shows: [1], approach, act: [ask, draw] })],
    },
  );
}

const onApproach: Interaction['approach'] = [{ when: 'eval', do: { kind: 'import', group: 1 } }];

function play(program: LoadProgram, steps: CompiledStep[], conditions = ROUND, ...more: VisitDocument[]) {
  const visit = visitOf(program, steps, ...more);
  const timeline = simulateVisit(visit, conditions);
  return { timeline, moments: experienced(visit, timeline) };
}

describe('an act', () => {
  const waitFor = (leadMs: number, approach = onApproach) =>
    play(dialogPage(approach), [step(0, { leadMs })]).moments[1].wait;
  const full = waitFor(0);

  it('takes a round trip, the file at line rate, and what the browser costs by itself', () => {
    // 100 ms there and back, 14 ms for 14 kB (a little more with headers and packets), then import, start, one frame.
    expect(full).toBeGreaterThan(100 + KB + 8);
    expect(full).toBeLessThan(100 + KB + 25);
  });

  it('with a lead of half the whole wait takes half of it, with twice the wait none but a frame', () => {
    expect(waitFor(full / 2)).toBeCloseTo(full / 2, 6);
    expect(waitFor(2 * full)).toBeLessThan(10);
  });

  it('gets nothing from a lead when nothing is fetched on the approach, or when the screen is touched', () => {
    expect(waitFor(full / 2, [])).toBeCloseTo(full, 6);
    const touched = { ...ROUND, device: { ...ROUND.device, touch: true } };
    expect(play(dialogPage(onApproach), [step(0, { leadMs: full })], touched).moments[1].wait).toBeCloseTo(full, 6);
  });

  it('costs nothing the second time, though the dialog was closed meanwhile', () => {
    const { timeline, moments } = play(dialogPage([]), [step(0), step(0, { index: 1 })]);
    expect(moments[1].wait).toBeCloseTo(full, 6);
    expect(moments[2].wait).toBeLessThan(10);
    expect(timeline.pages[0].timeline.requests.filter((r) => r.address === '/dialog.js')).toHaveLength(1);
  });

  it('fetches a prefetched file no second time', () => {
    const program = dialogPage([]);
    program.document.markup.unshift({ at: 50, tag: 'link', rel: 'prefetch', resource: 1, chosen: true });
    const { timeline, moments } = play(program, [step(0)]);
    const asked = timeline.pages[0].timeline.requests.filter((r) => r.address === '/dialog.js');
    expect(asked).toHaveLength(1);
    expect(asked[0].role).toBe('hinted');
    expect(moments[1].wait).toBeLessThan(20);
    expect(moments[1].requests).toEqual([]);
  });

  it('joins a fetch that is under way', () => {
    const program = dialogPage([]);
    program.resources[0].follow = [
      { when: 'timer', delayMs: 0, do: { kind: 'link', hint: { rel: 'modulepreload', resource: 1, chosen: false } } },
    ];
    const { timeline, moments } = play(program, [step(0, { dwellMs: 40 })]);
    const asked = timeline.pages[0].timeline.requests.filter((r) => r.address === '/dialog.js');
    expect(asked).toHaveLength(1);
    expect(moments[1].wait).toBeLessThan(full - 20);
    expect(moments[1].wait).toBeGreaterThan(10);
  });

  it('shows a stand-in meanwhile, from the next frame on', () => {
    const [, moment] = play(dialogPage([]), [step(0)]).moments;
    expect(moment.standIn).toMatchObject({ from: 8, to: moment.wait, flash: true });
    const bare = dialogPage([], { fallback: { show: 'nothing', holdMs: 0 } });
    expect(play(bare, [step(0)]).moments[1].standIn).toBeNull();
  });

  it('counts code that a trigger brought and nobody wanted as in case', () => {
    const program = dialogPage(onApproach);
    const { timeline } = play(program, [step(0, { does: 'approach', leadMs: 500 })]);
    expect(timeline.pages[0].timeline.requests.at(-1)).toMatchObject({ address: '/dialog.js', role: 'in case' });
    const wanted = play(program, [step(0, { leadMs: 500 })]).timeline.pages[0].timeline.requests.at(-1);
    expect(wanted?.role).toBe('on demand');
  });

  it('waits for answers of the server that come first, one round trip each', () => {
    const program = dialogPage([]);
    const answer = { type: 'fetch', bytes: 0, cache: 'no-store' } as const;
    program.resources.push(file('/submit', { ...answer, serverMs: 40 }), file('/moved', answer));
    program.interactions![0].first = [2, 3];
    const { moments, timeline } = play(program, [step(0), step(0, { index: 1 })]);
    expect(moments[1].wait).toBeGreaterThan(full + 240);
    expect(moments[1].wait).toBeLessThan(full + 265);
    // Sent again the second time, though the dialog's code is there.
    expect(moments[2].wait).toBeGreaterThan(240);
    expect(timeline.pages[0].timeline.requests.filter((r) => r.address === '/submit')).toHaveLength(2);
  });
});

describe('a page that the server drew', () => {
  it('takes an act only once it answers', () => {
    const program = dialogPage([]);
    program.resources[0].cpuMs = 900;
    program.document.markup.push({ at: 3000, tag: 'text', part: 0 });
    program.parts[0] = part('page', { drawnBy: 'document', needs: [{ resource: 0, state: 'evaluated' }] });
    const [landing, act] = play(program, [step(0, { dwellMs: 100 })]).moments;
    expect(landing.answering).toBeGreaterThan(landing.shown + 600);
    expect(act.taken).toBeCloseTo(landing.answering - landing.shown - 100, 6);
    expect(act.wait).toBeGreaterThan(act.taken + 100);
  });
});

describe('a deploy while a page is open', () => {
  it('makes files of the app fail that were not fetched yet, and tells only where the plan says so', () => {
    const steps = [step(0, { does: 'deploy', interaction: -1 }), step(0, { index: 1 })];
    const silent = play(dialogPage([]), steps).moments[2];
    expect(silent).toMatchObject({ failed: 'silent', wait: Number.NaN });
    const told = play(dialogPage([], { tellsFailure: true }), steps).moments[2];
    expect(told.failed).toBe('told');
  });

  it('harms nothing that is there already', () => {
    const steps = [step(0), step(0, { index: 1, does: 'deploy', interaction: -1 }), step(0, { index: 2 })];
    expect(play(dialogPage([]), steps).moments[3]).toMatchObject({ failed: null });
  });
});

describe('a next document', () => {
  const again = (program: LoadProgram, begins: VisitDocument['begins']): VisitDocument => ({
    program,
    begins,
    awayMs: 86_400_000,
    main: 0,
    conditions: [],
    steps: [],
  });
  const leave = step(-1, { does: 'leave' });

  it('needs no new connection and no file that was fetched before', () => {
    const program = dialogPage([]);
    const { timeline, moments } = play(program, [leave], ROUND, again(program, 'link'));
    const [first, second] = timeline.pages;
    expect(second.startedAt).toBeGreaterThan(3000);
    expect(second.timeline.requests.find((r) => r.address === '/entry.js')).toMatchObject({ bytes: 0 });
    // Three round trips less: two for the connection, one for the script; the open page gives way in some 40 ms.
    expect(moments[0].wait - moments[1].wait).toBeGreaterThan(240);
    expect(first.timeline.requests.every((r) => !r.cut)).toBe(true);
  });

  it('connects again after a while, and fetches what a deploy changed', () => {
    const program = dialogPage([]);
    program.resources[0].changes = true;
    const back = again(program, 'return');
    const kept = play(program, [leave], ROUND, back).moments[1];
    const changed = play(program, [step(-1, { does: 'deploy' }), leave], ROUND, back).moments[2];
    expect(changed.wait - kept.wait).toBeGreaterThan(80);
    expect(kept.bytes).toBe(5000);
    expect(changed.bytes).toBe(6000);
    expect(changed.failed).toBeNull();
  });

  it('cuts off what the page before had not finished, and frees the link for the next', () => {
    const big = dialogPage([]);
    big.resources.push(file('/film.mp4', { type: 'fetch', bytes: 20_000_000, cache: 'no-store' }));
    big.resources[0].follow = [{ when: 'eval', do: { kind: 'fetch', resource: 2 } }];
    const next = dialogPage([]);
    // A server that sends the more urgent first; one that doesn't would finish the film before the document.
    const urgent = { ...ROUND, link: { ...ROUND.link, serverScheduling: 'urgency' as const } };
    const { timeline, moments } = play(big, [leave], urgent, again(next, 'link'));
    expect(timeline.pages[0].timeline.requests.find((r) => r.address === '/film.mp4')?.cut).toBe(true);
    expect(timeline.pages[0].timeline.requests.find((r) => r.address === '/film.mp4')?.bytes).toBeLessThan(10_000_000);
    expect(moments[1].wait).toBeLessThan(1500);
  });

  it('credits the page before with what it fetched ahead', () => {
    const program = dialogPage([]);
    program.document.markup.unshift({ at: 50, tag: 'link', rel: 'prefetch', resource: 1, chosen: true });
    const next = page(
      [{ at: 100, tag: 'script', group: 0, mode: 'module' }],
      [file('/dialog.js', { bytes: KB * 1000 })],
      {
        parts: [part('page', { needs: [{ resource: 0, state: 'evaluated' }] })],
      },
    );
    const roles = (more: VisitDocument[]) =>
      play(program, [leave], ROUND, ...more).timeline.pages[0].timeline.requests.find((r) => r.address === '/dialog.js')
        ?.role;
    expect(roles([])).toBe('in case');
    expect(roles([again(next, 'link')])).toBe('hinted');
  });
});

describe('a screen that changes its size', () => {
  it('brings what waits for that width', () => {
    const program = dialogPage([]);
    program.resources[0].follow = [{ when: 'eval', media: { minWidth: 2000 }, do: { kind: 'import', group: 1 } }];
    const wide = step(-1, { does: 'resize', size: { width: 2400, height: 1200 } });
    const asked = (steps: CompiledStep[]) =>
      play(program, steps).timeline.pages[0].timeline.requests.some((r) => r.address === '/dialog.js');
    expect(asked([])).toBe(false);
    expect(asked([wide])).toBe(true);
  });
});

it('gives the same for the same visit', () => {
  const once = () =>
    JSON.stringify(play(dialogPage(onApproach), [step(0, { leadMs: 60 }), step(0, { index: 1 })]).timeline);
  expect(once()).toBe(once());
});

describe('a next document that was fetched or prepared ahead', () => {
  const next = page(
    [{ at: 100, tag: 'script', group: 0, mode: 'module' }],
    [file('/next.js', { bytes: 20_000, serverMs: 100 })],
    { parts: [part('page', { needs: [{ resource: 0, state: 'evaluated' }] })] },
  );
  next.document = { ...next.document, address: '/next', serverMs: 400 };
  /** The first page, with a rule about the next document that begins by itself. */
  const withRule = (does: 'fetch' | 'prepare' | null): LoadProgram => {
    const first = page(
      [],
      [
        file('/entry.js'),
        file('/next', { type: 'fetch', bytes: next.document.bytes, serverMs: 400, cache: 'no-store', document: true }),
      ],
      { parts: [part('page')] },
    );
    const instead = [{ kind: 'fetch', resource: 1, ahead: true } as const];
    if (does)
      first.document.markup.push({ at: 60, tag: 'rules', do: [{ kind: 'rule', does, address: '/next', instead }] });
    return first;
  };
  const going = (does: 'fetch' | 'prepare' | null, dwellMs: number) => {
    const second: VisitDocument = { program: next, begins: 'link', awayMs: 0, main: 0, conditions: [], steps: [] };
    return play(withRule(does), [step(-1, { does: 'leave', dwellMs })], ROUND, second);
  };
  const waited = (does: 'fetch' | 'prepare' | null, dwellMs = 5000) => going(does, dwellMs).moments[1].wait;

  it('saves its answer, or all of it', () => {
    // Server time and at least the round trip of the request fall away, not those of its script.
    expect(waited(null) - waited('fetch')).toBeGreaterThan(480);
    expect(waited('fetch')).toBeGreaterThan(200);
    expect(waited('prepare')).toBe(0);
  });

  it('is joined while it is on its way', () => {
    const late = waited('fetch', 0);
    expect(late).toBeLessThan(waited(null, 0));
    expect(late).toBeGreaterThan(waited('fetch'));
    const half = waited('prepare', 0);
    expect(half).toBeGreaterThan(0);
    expect(half).toBeLessThan(late);
  });

  it('travels once, and was no waste', () => {
    const { timeline } = going('fetch', 5000);
    const documents = timeline.pages.flatMap((p) => p.timeline.requests.filter((r) => r.address === '/next'));
    expect(documents.map((r) => [r.role, r.bytes > 0])).toEqual([
      ['hinted', true],
      ['content', false],
    ]);
  });
});
