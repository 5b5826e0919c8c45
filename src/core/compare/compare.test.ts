import fc from 'fast-check';
import { anyApp, part, route, sketch } from '../../test-support/snapshots.ts';
import { waitFor } from '../explain/wait.ts';
import { withDecision } from '../plan/decisions.ts';
import { BASELINE, type Decision, type Plan } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import { DEFAULT_CONDITIONS, LINKS } from '../sim/conditions.ts';
import { tablesCsv, tablesMarkdown } from '../text/table-text.ts';
import { LANDING_MEASURES, MEASURES } from '../vocabulary/measures.ts';
import { planTable } from './compare.ts';
import { earnedBy } from './earned.ts';

const open = part('dialog', 'dialog', { place: 'action', action: 'open' });
const app = sketch(
  {
    main: { bytes: 20_000, imports: ['page', 'other'] },
    page: { bytes: 30_000, imports: ['~dialog', 'chart', 'table'] },
    other: { bytes: 9000 },
    dialog: { bytes: 80_000 },
    chart: { bytes: 90_000, imports: ['shared'] },
    table: { bytes: 60_000, imports: ['shared'] },
    shared: { bytes: 120_000 },
  },
  {
    routes: [
      route('/', 'page', {
        parts: [open, part('c', 'chart', { place: 'below' }), part('t', 'table', { place: 'below' })],
      }),
      route('/other', 'other'),
    ],
  },
);
const detach = (to: string): Decision => ({ kind: 'detach', import: `page::${to}` });
const planOf = (...decisions: Decision[]): Plan => ({ name: 'Plan', description: '', decisions });
const slow = { ...DEFAULT_CONDITIONS, link: LINKS[3] };

describe('a table of a plan', () => {
  it('has every landing and action under every set of conditions, as they are predicted one by one', () => {
    const plan = planOf(detach('chart'));
    const table = planTable(app, plan, [DEFAULT_CONDITIONS, slow]);
    expect(table.landings.map((l) => l.route)).toEqual(['/', '/other']);
    [DEFAULT_CONDITIONS, slow].forEach((conditions, c) => {
      const { milestones, readout } = predict(app, plan, '/', conditions).reading;
      expect(table.landings[0].figures[c]).toMatchObject({
        'first content': milestones.firstContent,
        interactive: milestones.interactive,
        'start bytes': readout.startBytes,
        requests: readout.requests,
        hops: readout.hops,
      });
      expect(table.actions).toMatchObject([{ route: '/', part: 'dialog' }]);
      expect(table.actions[0].figures[c]!.wait).toBe(waitFor(app, plan, '/', 'dialog', conditions)!.wait);
      expect(table.actions[0].figures[c]).toMatchObject({ requests: 1, hops: 1 });
    });
    expect(table.landings[0].figures[1].interactive).toBeGreaterThan(table.landings[0].figures[0].interactive);
  });

  it('has nothing to fetch for an action whose code came with the landing', () => {
    const table = planTable(app, planOf({ kind: 'join', import: 'page::dialog' }), [DEFAULT_CONDITIONS]);
    expect(table.actions[0].figures).toMatchObject([{ bytes: 0, requests: 0, hops: 0 }]);
    // It is still drawn, and takes a frame to be seen.
    expect(table.actions[0].figures[0]!.wait).toBeLessThan(60);
  });
});

describe('what decisions earned', () => {
  it('is measured by itself and on top of the others, which differ where they need one another', () => {
    const plan = planOf(detach('chart'), detach('table'), { kind: 'put aside', finding: 'x', reason: '' });
    const { decisions, total } = earnedBy(app, plan, '/', DEFAULT_CONDITIONS);
    expect(decisions.map((d) => d.subject)).toEqual(['import page::chart', 'import page::table']);
    const bytes = (of: Plan) => predict(app, of, '/', DEFAULT_CONDITIONS).reading.readout.startBytes;
    const was = bytes(BASELINE);
    expect(total['start bytes']).toBe(bytes(plan) - was);
    for (const [at, d] of decisions.entries()) {
      const [own, others] = [plan.decisions[at], plan.decisions[1 - at]];
      expect(d.alone['start bytes']).toBe(bytes(planOf(own)) - was);
      expect(d.last['start bytes']).toBe(bytes(plan) - bytes(planOf(others)));
      // What both share only leaves with the second of them.
      expect(d.last['start bytes']).toBeLessThan(d.alone['start bytes']);
    }
  });

  it('adds up for a plan of one decision, whatever the app', () => {
    fc.assert(
      fc.property(anyApp(12), fc.nat(), (snapshot, pick) => {
        const statics = snapshot.imports.filter((i) => i.kind === 'static');
        if (statics.length === 0 || snapshot.routes.length === 0) return;
        const { from, specifier, ordinal } = statics[pick % statics.length];
        const key = `${snapshot.modules[from].path}::${specifier}${ordinal > 0 ? `#${ordinal}` : ''}`;
        const plan = withDecision(planOf(), { kind: 'detach', import: key });
        const { decisions, total } = earnedBy(snapshot, plan, snapshot.routes[0].pattern, DEFAULT_CONDITIONS);
        expect(decisions).toHaveLength(1);
        for (const m of LANDING_MEASURES) {
          expect(decisions[0].alone[m]).toBe(total[m]);
          expect(decisions[0].last[m]).toBe(total[m]);
        }
      }),
      { numRuns: 40 },
    );
  });
});

it('tables become text in which names are neither markup nor formulas', () => {
  const table = {
    title: 'A | <b>',
    head: ['', 'Plan [x](y)'],
    rows: [
      ['=1+1', '3 kB'],
      ['say "so"', '−2 kB'],
    ],
  };
  expect(tablesMarkdown([table])).toBe(
    '### A \\| \\<b\\>\n\n|  | Plan \\[x\\](y) |\n| --- | ---: |\n| =1+1 | 3 kB |\n| say "so" | −2 kB |\n',
  );
  expect(tablesCsv([table])).toBe('table,,Plan [x](y)\r\nA | <b>,\'=1+1,3 kB\r\nA | <b>,"say ""so""",−2 kB\r\n');
  expect((['wait', 'start bytes', 'hops'] as const).map((m) => MEASURES[m].unit)).toEqual(['ms', 'bytes', 'count']);
});
