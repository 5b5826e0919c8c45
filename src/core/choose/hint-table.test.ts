import { part, route, sketch } from '../../test-support/snapshots.ts';
import { Scorer } from '../advise/score.ts';
import { BASELINE, type Decision, type Plan } from '../plan/types.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import { finish } from '../steps.ts';
import { modelOf } from '../visitors/model.ts';
import { hintTable } from './hint-table.ts';

const app = sketch(
  {
    main: { imports: ['~home', '~list'], bytes: 30_000 },
    home: { imports: ['~hero', '~dialog'], bytes: 20_000 },
    hero: { bytes: 15_000 },
    dialog: { bytes: 50_000 },
    list: { bytes: 40_000 },
    admin: { imports: ['desk'], bytes: 30_000 },
    desk: {},
  },
  {
    entries: [
      { realm: 'site', kind: 'document', document: 'index.html', modules: ['main'] },
      { realm: 'admin', kind: 'document', document: 'admin.html', modules: ['admin'] },
    ],
    routes: [
      route('/', 'home', {
        landings: 60,
        links: ['/list', '/admin'],
        parts: [part('hero', 'hero'), part('dialog', 'dialog', { place: 'action', share: 0.4 })],
      }),
      route('/list', 'list', { landings: 40 }),
      route('/admin', 'desk', { realm: 'admin', document: { bytes: 6000, serverMs: 300 } }),
    ],
  },
);
const { model } = modelOf(app);
const table = (plan: Plan = BASELINE) => finish(hintTable(app, plan, model, DEFAULT_CONDITIONS));
const cost = (decisions: Decision[]) =>
  new Scorer(app, model, DEFAULT_CONDITIONS).score({ ...BASELINE, decisions }).cost;

describe('the table of hints', () => {
  const rows = table();

  it('has what the start finds late, what people want next, and documents that are opened next', () => {
    const words = rows.map((r) => r.words);
    expect(words).toContain('modulepreload hero in the markup');
    expect(words).toContain('prefetch dialog by script, when idle');
    expect(words).toContain('prefetch /list in the markup');
    expect(words).toContain('prefetch document /admin on hover or focus');
    expect(words).toContain('prepare document /admin on hover or focus');
    expect(rows.every((r) => !r.on)).toBe(true);
  });

  it('tells of each what all visitors would gain and waste with it alone', () => {
    const before = cost([]);
    for (const row of rows) expect(row.gain).toBeCloseTo(before - cost([{ kind: 'hint', hint: row.hint }]), 6);
    const prefetched = rows.find((r) => r.words === 'prefetch dialog in the markup')!;
    expect(prefetched.waste).toBeGreaterThan(0);
    expect(rows.find((r) => r.words === 'modulepreload hero in the markup')!.waste).toBe(0);
  });

  it('saves the answer of a document that is fetched ahead at once', () => {
    const ahead = rows.find((r) => r.words === 'prefetch document /admin at once')!;
    expect(ahead.effect.waits[0]).toMatchObject({ route: '/', name: '/admin' });
    expect(ahead.effect.waits[0].change).toBeLessThan(-300);
  });

  it('tells of one that the plan has what it does there, and of one that does nothing why', () => {
    const [useful] = [...rows].sort((a, b) => b.gain - a.gain);
    const gone: Decision = {
      kind: 'hint',
      hint: { ...useful.hint, target: { kind: 'split point', module: 'gone' } },
    };
    const now = table({ ...BASELINE, decisions: [{ kind: 'hint', hint: useful.hint }, gone] });
    const own = now.filter((r) => r.on);
    expect(own).toHaveLength(2);
    expect(own[0].gain).toBeCloseTo(useful.gain, 6);
    expect(own[1]).toMatchObject({ waste: 0, trouble: 'no module gone in this snapshot' });
    expect(Math.abs(own[1].gain)).toBe(0);
    expect(now.filter((r) => r.id === useful.id)).toHaveLength(1);
  });
});
