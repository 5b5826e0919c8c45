import { ROUND } from '../../test-support/programs.ts';
import { part, route, sketch } from '../../test-support/snapshots.ts';
import { planned } from '../chunks/planned.ts';
import { BASELINE, type Decision } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import type { DataCall, Rendering } from '../snapshot/route-types.ts';
import { playVisit } from '../visits/play.ts';
import { VisitCompiler } from '../visits/program.ts';
import type { Trigger } from '../vocabulary/triggers.ts';

const call: DataCall = { id: 'prices', address: '/api/prices', bytes: 2000, serverMs: 300, module: 'home' };

const appOf = (rendering: Rendering = 'client') =>
  sketch(
    {
      main: { imports: ['home'] },
      list: {},
      home: { imports: ['list', '~hero', '~dialog', '~crew'] },
      hero: { bytes: 30_000 },
      dialog: { bytes: 9000, imports: ['~editor'] },
      editor: { bytes: 60_000 },
      crew: { bytes: 900_000 },
    },
    {
      routes: [
        route('/', 'home', {
          rendering,
          data: [call, { ...call, id: 'stock', address: '/api/stock' }],
          parts: [
            part('hero', 'hero'),
            part('list', 'list', { needs: ['stock'] }),
            part('dialog', 'dialog', { place: 'action', needs: ['prices'] }),
            part('crew', 'crew', { place: 'conditional', condition: { kind: 'segment', segment: 'crew' } }),
          ],
        }),
      ],
    },
  );

const fetched = (fetch: Trigger): Decision => ({ kind: 'trigger', splitPoint: 'hero', fetch });
const landed = (decisions: Decision[], rendering: Rendering = 'client') => {
  const { reading, program, timeline } = predict(appOf(rendering), { ...BASELINE, decisions }, '/', ROUND);
  const missing = reading.missing.map((m) => [program.parts[m.part].name, m.state, program.parts[m.part].held?.on]);
  return { ...reading.milestones, missing, asked: timeline.requests.map((r) => r.name) };
};

describe('a part of the first screen', () => {
  it('is in view at layout: its code comes then, and is waited for', () => {
    const atOnce = landed([]);
    for (const rendering of ['client', 'server'] as const) {
      const seen = landed([fetched({ on: 'visible' })], rendering);
      expect(seen.asked).toContain('hero');
      expect(seen.missing).toEqual([]);
      expect(Number.isFinite(seen.interactive)).toBe(true);
      if (rendering === 'client') expect(seen.interactive).toBeGreaterThanOrEqual(atOnce.interactive);
    }
  });

  it('comes with an answer that the route asks for, and never with one that it doesn’t', () => {
    const answered = landed([fetched({ on: 'answer', of: 'stock' })]);
    expect(answered.missing).toEqual([]);
    expect(answered.interactive).toBeGreaterThan(landed([]).interactive + 200);
    expect(landed([fetched({ on: 'answer', of: 'prices' })]).firstScreenComplete).toBeNaN();
  });

  it.each([{ on: 'approach' }, { on: 'action' }, { on: 'event', name: 'x' }] as Trigger[])(
    'that waits for something that nobody does keeps the screen from being complete, and is named (%j)',
    (trigger) => {
      const held = landed([fetched(trigger)]);
      expect([held.firstScreenComplete, held.interactive]).toEqual([Number.NaN, Number.NaN]);
      expect(held.missing).toEqual([['hero', 'shown', trigger.on]]);
      expect(held.asked).not.toContain('hero');
      // The server drew it: it shows, and never answers.
      const island = landed([fetched(trigger)], 'server');
      expect(Number.isFinite(island.firstScreenComplete)).toBe(true);
      expect(island.missing).toEqual([['hero', 'answering', trigger.on]]);
    },
  );

  it.each(['run', 'show'] as const)('is missed as well where only its %s waits', (setting) => {
    const held = landed([{ kind: 'split', splitPoint: 'hero', [setting]: { on: 'action' } }]);
    expect(held.missing).toEqual([['hero', 'shown', 'action']]);
    expect(held.interactive).toBeNaN();
  });
});

describe('a wait until all of it is there', () => {
  const played = (holds: string[], act = false) => {
    const compiler = new VisitCompiler(planned(appOf(), BASELINE));
    const steps = act ? [{ does: 'act' as const, part: 'dialog', dwellMs: 3000, leadMs: 0 }] : [];
    const { experiences, timeline } = playVisit(compiler, { name: '', landing: '/', holds, steps }, ROUND);
    const ended = (name: string) => timeline.pages[0].timeline.requests.find((r) => r.name === name)!.evaluated;
    return { last: experiences.at(-1)!, ended };
  };

  it('goes on to conditional parts that are chosen to be there', () => {
    const { last, ended } = played(['crew']);
    expect(last.complete).toBeGreaterThan(ended('crew'));
    expect(last.complete).toBeGreaterThan(played([]).last.complete + 20);
  });

  it('goes on to what is deferred inside, and to the data', () => {
    const { last, ended } = played([], true);
    expect(last.parts.map((p) => p.name)).toEqual(['dialog', 'editor']);
    expect(last.complete).toBeGreaterThan(ended('editor') - last.act);
    // A round trip and 300 ms at the server.
    expect(last.complete).toBeGreaterThan(400);
    expect(last.shown).toBeLessThan(300);
  });
});
