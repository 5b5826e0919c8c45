import { ROUND } from '../../test-support/programs.ts';
import { part, route, sketch } from '../../test-support/snapshots.ts';
import { planned } from '../chunks/planned.ts';
import { BASELINE, type Decision } from '../plan/types.ts';
import { type Conditions, REFERENCE_COSTS } from '../sim/conditions.ts';
import type { DataCall, Route } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { playVisit } from '../visits/play.ts';
import { VisitCompiler } from '../visits/program.ts';
import type { VisitStep } from '../visits/types.ts';

const call = (id: string, module: string, more: Partial<DataCall> = {}): DataCall => ({
  id,
  address: `/api/${id}`,
  bytes: 2000,
  serverMs: 60,
  module,
  ...more,
});

/** An app with a home page and a shop; what stands on them is given. */
function app(home: Partial<Route>, shop: Partial<Route> = {}, more: Partial<Snapshot> = {}): Snapshot {
  return sketch(
    {
      main: { imports: ['home', '~shop'] },
      home: { imports: ['~dialog', '~below', '~crew', '~card', '~bank'] },
      dialog: { bytes: 42_000, imports: ['~inner'] },
      inner: { bytes: 6000 },
      below: { bytes: 9000 },
      crew: { bytes: 9000 },
      card: { bytes: 9000 },
      bank: { bytes: 9000 },
      shop: { bytes: 30_000, imports: ['~list'] },
      list: { bytes: 6000 },
    },
    { routes: [route('/', 'home', { links: ['/shop'], ...home }), route('/shop', 'shop', shop)], ...more },
  );
}

function play(
  snapshot: Snapshot,
  steps: VisitStep[],
  decisions: Decision[] = [],
  holds: string[] = [],
  under: Conditions = ROUND,
) {
  const compiler = new VisitCompiler(planned(snapshot, { ...BASELINE, decisions }));
  const played = playVisit(compiler, { name: '', landing: '/', holds, steps }, under);
  const asked = played.timeline.pages.flatMap((p) => p.timeline.requests.map((r) => r.name));
  return { ...played, asked };
}

const act = (of: string, leadMs = 0): VisitStep => ({ does: 'act', part: of, dwellMs: 3000, leadMs });
const move = (leadMs = 0, by: 'inside' | 'document' = 'inside'): VisitStep => ({
  does: 'move',
  to: '/shop',
  by,
  dwellMs: 3000,
  leadMs,
  holds: [],
});
const fetchWhen = (splitPoint: string, on: 'approach' | 'idle' | 'action' | 'visible'): Decision => ({
  kind: 'trigger',
  splitPoint,
  fetch: { on },
});
const dialog = part('dialog', 'dialog', { place: 'action', needs: ['prices'] });

describe('a part behind an act', () => {
  // The server takes longer than what the dialog asks for in its turn.
  const withData = (module: string) => app({ parts: [dialog], data: [call('prices', module, { serverMs: 260 })] });

  it('starts data with its code where the page asks for it, after its code where it asks itself', () => {
    const [, beside] = play(withData('home'), [act('dialog')]).experiences;
    const [, after] = play(withData('dialog'), [act('dialog')]).experiences;
    expect(beside.shown).toBeCloseTo(after.shown, -1);
    expect(after.complete - beside.complete).toBeGreaterThan(70);
  });

  it('starts data with the code where the plan says so', () => {
    const together: Decision = { kind: 'split', splitPoint: 'dialog', data: 'with the code' };
    const [, planned] = play(withData('dialog'), [act('dialog')], [together]).experiences;
    const [, beside] = play(withData('home'), [act('dialog')]).experiences;
    expect(planned.complete).toBeCloseTo(beside.complete, 6);
  });

  it('asks for its data again each time, not for its code', () => {
    const { asked, experiences } = play(withData('home'), [act('dialog'), act('dialog')]);
    expect(asked.filter((n) => n === 'prices')).toHaveLength(2);
    expect(asked.filter((n) => n === 'dialog')).toHaveLength(1);
    expect(experiences[2].shown).toBeLessThan(30);
    expect(experiences[2].complete).toBeGreaterThan(150);
  });

  it('does not start its data on the landing, even when its code is there', () => {
    const joined = sketch(
      { main: { imports: ['home'] }, home: { imports: ['dialog'] }, dialog: {} },
      { routes: [route('/', 'home', { parts: [dialog], data: [call('prices', 'dialog')] })] },
    );
    expect(play(joined, []).asked).not.toContain('prices');
    expect(play(joined, [act('dialog')]).asked).toContain('prices');
  });

  it('asks for its images only once its code has run, after the act', () => {
    const content = [
      {
        ...{ id: 'stamp', kind: 'image' as const, address: '/stamp.png', bytes: 9000, serverMs: 20 },
        ...{ place: 'first screen' as const, foundIn: { module: 'dialog' }, lazy: false },
      },
    ];
    const stamped = { ...dialog, needs: ['stamp'] };
    const snapshot = app({ parts: [stamped], content });
    expect(play(snapshot, []).asked).not.toContain('/stamp.png');
    const { timeline } = play(snapshot, [act('dialog')]);
    const { requests } = timeline.pages[0].timeline;
    const image = requests.find((r) => r.type === 'image')!;
    const code = requests.find((r) => r.name === 'dialog')!;
    expect(image.discovered).toBeGreaterThan(code.evaluated - 0.001);
  });

  it('brings what is deferred inside it only after it has run', () => {
    const { timeline, asked } = play(app({ parts: [dialog] }), [act('dialog')]);
    const [page] = timeline.pages;
    const find = (name: string) => page.timeline.requests[asked.indexOf(name)];
    expect(find('inner').discovered).toBeGreaterThan(find('dialog').evaluated - 0.001);
  });

  it('asks for what is deferred inside it as it is drawn, each time that it is opened', () => {
    const snapshot = app({ parts: [{ ...dialog, drawMs: 40 }] });
    const { timeline, asked } = play(snapshot, [act('dialog'), act('dialog')]);
    const { requests, tasks } = timeline.pages[0].timeline;
    const drawn = tasks.filter((t) => t.kind === 'render' && t.name === 'dialog').map((t) => t.end);
    expect(drawn).toHaveLength(2);
    const inner = requests[asked.indexOf('inner')];
    expect(inner.discovered).toBeCloseTo(drawn[0] + REFERENCE_COSTS.importDelay, 6);
    const innerDrawn = tasks.filter((t) => t.kind === 'render' && t.name === 'inner').map((t) => t.start);
    expect(innerDrawn).toHaveLength(2);
    expect(innerDrawn[0]).toBeGreaterThan(inner.end);
    expect(innerDrawn[1]).toBeGreaterThan(drawn[1] - 0.001);
  });

  it('runs its code on the act where that is decided, though it was fetched before', () => {
    const early: Decision[] = [
      fetchWhen('dialog', 'idle'),
      { kind: 'split', splitPoint: 'dialog', run: { on: 'action' } },
    ];
    const { timeline, experiences, asked } = play(app({ parts: [dialog] }), [act('dialog')], early);
    const fetched = timeline.pages[0].timeline.requests[asked.indexOf('dialog')];
    expect(fetched.end).toBeLessThan(experiences[1].act);
    expect(fetched.evaluated).toBeGreaterThan(experiences[1].act);
  });
});

describe('conditional parts', () => {
  it('come when an answer says so, and only in visits in which it does', () => {
    const answer = part('crew', 'crew', { place: 'conditional', condition: { kind: 'answer', of: 'me' } });
    const snapshot = app({ parts: [answer], data: [call('me', 'home')] });
    expect(play(snapshot, []).asked).not.toContain('crew');
    const { timeline, asked } = play(snapshot, [], [], ['crew']);
    const { requests } = timeline.pages[0].timeline;
    expect(requests[asked.indexOf('crew')].discovered).toBeGreaterThan(requests[asked.indexOf('me')].end - 0.001);
  });

  it('that exclude each other: only the one that holds travels', () => {
    const one = (id: string) => part(id, id, { place: 'conditional', condition: { kind: 'one of', group: 'pay' } });
    const { asked } = play(app({ parts: [one('card'), one('bank')] }), [], [], ['bank']);
    expect(asked).toContain('bank');
    expect(asked).not.toContain('card');
  });
});

describe('a move inside the app', () => {
  const list = part('list', 'list', { needs: ['goods'] });
  const snapshot = app({}, { parts: [list], data: [call('goods', 'shop')] });

  it('asks for the code, then for what that asks for, and shows a stand-in meanwhile', () => {
    const { experiences, asked } = play(snapshot, [move()]);
    expect(asked).toEqual(expect.arrayContaining(['shop', 'list', 'goods']));
    expect(experiences[1].kind).toBe('move');
    expect(experiences[1].standIn).not.toBeNull();
    expect(experiences[1].complete).toBeGreaterThan(experiences[1].shown + 50);
  });

  it('asks for what its page draws as that is drawn', () => {
    const { timeline, asked } = play(snapshot, [move()]);
    const { requests, tasks } = timeline.pages[0].timeline;
    const drawn = tasks.findLast((t) => t.kind === 'render' && t.name === 'shop')!.end;
    expect(requests[asked.indexOf('list')].discovered).toBeCloseTo(drawn + REFERENCE_COSTS.importDelay, 6);
  });

  it('with the old screen kept shows nothing of the new one before all of it is ready', () => {
    const old: Decision = { kind: 'split', splitPoint: 'shop', fallback: { show: 'old screen', holdMs: 0 } };
    const [, switched] = play(snapshot, [move()]).experiences;
    const [, kept] = play(snapshot, [move()], [old]).experiences;
    expect(kept.standIn).toBeNull();
    expect(kept.shown).toBeGreaterThan(switched.complete - 30);
    expect(kept.complete - kept.shown).toBeLessThan(30);
  });

  it('gets its code on the approach of a link, and its answer too where that is wanted', () => {
    const ahead: Decision[] = [fetchWhen('shop', 'approach')];
    const answer: Decision = { kind: 'split', splitPoint: 'shop', answerAhead: { keepMs: 5000 } };
    const plain = play(snapshot, [move(600)]).experiences[1];
    const code = play(snapshot, [move(600)], ahead).experiences[1];
    const both = play(snapshot, [move(600)], [...ahead, answer]);
    expect(code.shown).toBeLessThan(plain.shown - 80);
    expect(both.experiences[1].complete).toBeLessThan(code.complete - 80);
    expect(both.asked.filter((n) => n === 'goods')).toHaveLength(1);
  });

  it('asks for an answer again that was fetched ahead too long ago', () => {
    const ahead: Decision[] = [
      fetchWhen('shop', 'idle'),
      { kind: 'split', splitPoint: 'shop', answerAhead: { keepMs: 1000 } },
    ];
    expect(play(snapshot, [move()], ahead).asked.filter((n) => n === 'goods')).toHaveLength(2);
  });

  it('fetches ahead of visible links only where the route links there, and runs it only on the move', () => {
    const unlinked = app({ links: [] }, { parts: [list] });
    expect(play(unlinked, [], [fetchWhen('shop', 'visible')]).asked).not.toContain('shop');
    const { timeline, asked, experiences } = play(snapshot, [move()], [fetchWhen('shop', 'visible')]);
    const fetched = timeline.pages[0].timeline.requests[asked.indexOf('shop')];
    expect(fetched.end).toBeLessThan(experiences[1].act);
    expect(fetched.evaluated).toBeGreaterThan(experiences[1].act);
    const unused = play(snapshot, [], [fetchWhen('shop', 'visible')]);
    expect(unused.sums.unused).toBeGreaterThan(9000);
  });

  it('to a route that the server draws asks for its answer beside its code', () => {
    const drawn = app(
      {},
      { rendering: 'server', document: { bytes: 8000, serverMs: 90 }, parts: [part('list', 'list')] },
    );
    const { asked, experiences, timeline } = play(drawn, [move()]);
    const { requests } = timeline.pages[0].timeline;
    const answer = requests[asked.indexOf('answer of /shop')];
    expect(answer.discovered).toBeLessThan(requests[asked.indexOf('shop')].end);
    expect(experiences[1].act + experiences[1].shown).toBeGreaterThan(answer.end);
    // What the answer names is asked for once that is there.
    expect(requests[asked.indexOf('list')].discovered).toBeGreaterThan(answer.end - 0.001);
  });

  it('and back again needs no code', () => {
    const back: VisitStep = { does: 'move', to: '/', by: 'inside', dwellMs: 2000, leadMs: 0, holds: [] };
    const { experiences, timeline } = play(snapshot, [move(), back, move()]);
    expect(experiences[2].shown).toBeLessThan(30);
    expect(experiences[3].shown).toBeLessThan(30);
    expect(timeline.pages).toHaveLength(1);
  });

  it('that opens a document begins again, with the files that were kept', () => {
    const { experiences, timeline } = play(snapshot, [move(0, 'document')]);
    expect(timeline.pages).toHaveLength(2);
    expect(experiences[1].kind).toBe('document');
    const entry = timeline.pages[1].timeline.requests.find((r) => r.name === 'entry');
    expect(entry?.bytes).toBe(0);
  });
});

describe('a part below the first screen', () => {
  const low = app({ parts: [part('below', 'below', { place: 'below' })] });
  const scroll: VisitStep = { does: 'scroll', part: 'below', dwellMs: 2000, leadMs: 0 };
  const back: VisitStep = { does: 'move', to: '/', by: 'inside', dwellMs: 2000, leadMs: 0, holds: [] };

  it('is there when somebody scrolls to it again, and drawn again after another screen', () => {
    const { experiences } = play(low, [scroll, scroll, move(), back, scroll]);
    const waits = experiences.filter((e) => e.kind === 'scroll');
    expect(waits.map((e) => e.failed)).toEqual([null, null, null]);
    expect(waits[0].wait).toBeGreaterThan(100);
    expect(waits[1].wait).toBe(0);
    expect(waits[2].wait).toBeGreaterThan(0);
    expect(waits[2].wait).toBeLessThan(30);
  });
});

describe('islands on a page that the server draws', () => {
  const islands = sketch(
    {
      main: { imports: ['home'] },
      home: { imports: ['~gallery', '~basket'] },
      gallery: { bytes: 9000, imports: ['runtime'] },
      basket: { bytes: 3000, imports: ['runtime'] },
      runtime: { bytes: 60_000 },
    },
    {
      routes: [
        route('/', 'home', {
          rendering: 'server',
          parts: [part('basket', 'basket', { share: 0.4 }), part('gallery', 'gallery', { place: 'below', share: 0.3 })],
        }),
      ],
    },
  );
  const onApproach = fetchWhen('basket', 'approach');

  it('show with the document and answer only from their trigger on', () => {
    const { timeline, program } = play(islands, [], [onApproach]);
    const { parts } = program.documents[0].program;
    const of = (id: string) =>
      timeline.pages[0].timeline.reveals.filter((r) => parts[r.part].id === id).map((r) => r.state);
    expect(of('basket')).toEqual(['shown']);
    expect(of('gallery')).toEqual(['shown']);
  });

  it('let the first one pay for the runtime that they share', () => {
    const scroll: VisitStep = { does: 'scroll', part: 'gallery', dwellMs: 3000, leadMs: 0 };
    const bytes = (steps: VisitStep[]) =>
      play(islands, steps, [onApproach])
        .experiences.slice(1)
        .map((e) => e.bytes);
    const [first, second] = bytes([act('basket'), scroll]);
    expect(first).toBeGreaterThan(20_000);
    expect(second).toBeLessThan(4000);
    const [sooner, later] = bytes([scroll, act('basket')]);
    expect(sooner).toBeGreaterThan(20_000);
    expect(later).toBeLessThan(2000);
  });

  it('fail when a deploy took their code away, and the visit goes on', () => {
    const deploy: VisitStep = { does: 'deploy', dwellMs: 100 };
    const { experiences } = play(islands, [deploy, act('basket'), deploy], [onApproach]);
    expect(experiences[2]).toMatchObject({ shown: 0, wait: Number.NaN, failed: 'silent' });
    expect(experiences).toHaveLength(4);
    const told: Decision = { kind: 'split', splitPoint: 'basket', onError: 'a message' };
    expect(play(islands, [deploy, act('basket')], [onApproach, told]).experiences[2].failed).toBe('told');
  });

  it('are waited for until they answer', () => {
    const [, used] = play(islands, [act('basket')], [onApproach]).experiences;
    expect(used.shown).toBe(0);
    expect(used.wait).toBe(used.answering);
    expect(used.wait).toBeGreaterThan(100);
    const [, led] = play(islands, [act('basket', 2000)], [onApproach]).experiences;
    expect(led.wait).toBeLessThan(30);
  });
});
