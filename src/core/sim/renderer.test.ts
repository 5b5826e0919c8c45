import { file, page, screenPart as part, ROUND } from '../../test-support/programs.ts';
import type { MarkupItem } from '../load/types.ts';
import { EventQueue } from './event-queue.ts';
import { MainThread } from './main-thread.ts';
import { simulate } from './simulate.ts';
import type { Timeline } from './types.ts';

const entry: MarkupItem = { at: 100, tag: 'script', group: 0, mode: 'module' };
const states = (timeline: Timeline, at: number) =>
  Object.fromEntries(timeline.reveals.filter((r) => r.part === at).map((r) => [r.state, r.at]));

describe('parts that script draws', () => {
  const program = page(
    [entry],
    [
      file('/entry.js', {
        cpuMs: 10,
        follow: [
          { when: 'eval', do: { kind: 'import', group: 1 } },
          { when: 'eval', do: { kind: 'img', resource: 2 } },
        ],
      }),
      file('/panel.js', { cpuMs: 10 }),
      file('/pic.jpg', { type: 'image', bytes: 60_000 }),
    ],
    {
      parts: [
        part('shell', { needs: [{ resource: 0, state: 'evaluated' }], fill: [2] }),
        part('panel', { needs: [{ resource: 1, state: 'evaluated' }], after: [0] }),
        part('later', { onItsOwn: false }),
      ],
    },
  );
  const timeline = simulate(program, ROUND);

  it('show when their script has run, and answer from then on', () => {
    const shell = states(timeline, 0);
    expect(shell.shown).toBe(timeline.moments.firstContent);
    expect(shell.answering).toBe(shell.shown);
    expect(timeline.requests[1].evaluated).toBeLessThan(shell.shown);
  });

  it('leave a stand-in where the part around them is there first', () => {
    const panel = states(timeline, 1);
    expect(panel['stand-in']).toBe(timeline.moments.firstContent);
    expect(panel.shown).toBeGreaterThan(panel['stand-in'] + 80);
    expect(panel.shown).toBeGreaterThan(timeline.requests.find((r) => r.address === '/panel.js')!.evaluated);
  });

  it('are filled when their images are there', () => {
    const picture = timeline.requests.find((r) => r.address === '/pic.jpg')!;
    expect(states(timeline, 0).filled).toBe(picture.end);
  });

  it('that nothing asks for never show', () => {
    expect(states(timeline, 2)).toEqual({});
  });
});

describe('parts that are drawn anew with their data', () => {
  const SLOW = { ...ROUND, device: { ...ROUND.device, cpuFactor: 2 } };
  const rowsIn = (fillMs: number, { serverMs = 300, image = false } = {}) => {
    const asked = [{ when: 'eval' as const, do: { kind: 'fetch' as const, resource: 1 } }];
    const picture = [{ when: 'eval' as const, do: { kind: 'img' as const, resource: 2 } }];
    const program = page(
      [entry],
      [
        file('/entry.js', { cpuMs: 10, follow: image ? [...asked, ...picture] : asked }),
        file('/api/rows', { type: 'fetch', serverMs }),
        file('/pic.jpg', { type: 'image', serverMs: 900 }),
      ],
      {
        parts: [
          part('board', {
            needs: [{ resource: 0, state: 'evaluated' }],
            fill: image ? [1, 2] : [1],
            fillMs,
            renderMs: 60,
          }),
        ],
      },
    );
    const timeline = simulate(program, SLOW);
    const end = (address: string) => timeline.requests.find((r) => r.address === address)!.end;
    const { shown, filled } = states(timeline, 0);
    return { shown, filled, answer: end('/api/rows'), picture: image ? end('/pic.jpg') : 0, timeline };
  };

  it('are filled once that is done, on the device', () => {
    const { filled: at, answer, timeline } = rowsIn(20);
    expect(at).toBeCloseTo(answer + 40, 6);
    expect(timeline.tasks.at(-1)).toMatchObject({ kind: 'render', name: 'board', start: answer });
    expect(rowsIn(0).filled).toBe(answer);
  });

  it('wait for their images as well, and for those alone where the data was there first', () => {
    const both = rowsIn(20, { image: true });
    expect(both.filled).toBe(both.picture);
    expect(both.picture).toBeGreaterThan(both.answer + 40);
  });

  it('are drawn once where the answer was there before they showed', () => {
    const { filled: at, shown, answer, timeline } = rowsIn(20, { serverMs: 0 });
    expect(answer).toBeLessThan(shown);
    expect(at).toBe(shown);
    expect(timeline.tasks.filter((t) => t.kind === 'render')).toHaveLength(1);
  });
});

describe('parts that the document draws', () => {
  const markup: MarkupItem[] = [entry, { at: 3000, tag: 'text', part: 0 }, { at: 3500, tag: 'text', part: 1 }];
  const parts = [
    part('text', { drawnBy: 'document', interactive: false }),
    part('form', { drawnBy: 'document', needs: [{ resource: 0, state: 'evaluated' }] }),
  ];

  it('show with the first paint, and answer when their script has run', () => {
    const timeline = simulate(page(markup, [file('/entry.js', { bytes: 80_000, cpuMs: 30 })], { parts }), ROUND);
    expect(states(timeline, 0)).toEqual({ shown: timeline.moments.firstContent });
    expect(states(timeline, 1).shown).toBe(timeline.moments.firstContent);
    expect(states(timeline, 1).answering).toBeGreaterThan(timeline.requests[1].evaluated);
  });

  it('that come late in a streamed document show a frame after they are parsed', () => {
    const program = page(markup, [file('/entry.js')], { parts });
    program.document.flush = [
      { upTo: 3200, atMs: 0 },
      { upTo: 5000, atMs: 800 },
    ];
    const timeline = simulate(program, ROUND);
    expect(states(timeline, 1).shown - states(timeline, 0).shown).toBeGreaterThan(600);
  });

  it('wait for a thread that is busy', () => {
    const busy: MarkupItem = { at: 200, tag: 'inline', name: 'busy', cpuMs: 400, follow: [] };
    const plain = simulate(page(markup, [file('/entry.js')], { parts }), ROUND).moments.firstContent;
    const late = simulate(page([entry, busy, ...markup.slice(1)], [file('/entry.js')], { parts }), ROUND).moments
      .firstContent;
    expect(late - plain).toBeGreaterThan(380);
  });
});

describe('the thread', () => {
  it('runs one task at a time in the order of readiness, and tells when it is idle', () => {
    const clock = new EventQueue();
    const thread = new MainThread(clock);
    const log: string[] = [];
    const cause = { kind: 'task' as const, what: '', at: 0, request: -1, task: -1 };
    const add = (name: string, ms: number, then = () => {}) =>
      thread.add('work', name, ms, cause, -1, () => {
        log.push(`${name} ${clock.now}`);
        then();
      });
    add('a', 10, () => add('d', 1));
    add('b', 5);
    clock.at(12, () => add('c', 5));
    thread.onIdle(() => log.push(`idle ${clock.now}`));
    expect(thread.idle).toBe(false);
    clock.run(100);
    expect(log).toEqual(['a 10', 'b 15', 'd 16', 'c 21', 'idle 21']);
    expect(thread.tasks.map((t) => [t.name, t.ready, t.start, t.end])).toEqual([
      ['a', 0, 0, 10],
      ['b', 0, 10, 15],
      ['d', 10, 15, 16],
      ['c', 12, 16, 21],
    ]);
    thread.onIdle(() => log.push('at once'));
    expect(log.at(-1)).toBe('at once');
  });
});
