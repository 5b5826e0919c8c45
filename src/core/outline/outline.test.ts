import { part, route, sketch } from '../../test-support/snapshots.ts';
import { BASELINE, type Plan } from '../plan/types.ts';
import { outlineOf } from './outline.ts';

const app = sketch(
  {
    main: { imports: ['page'] },
    page: { imports: ['dialog', 'helper', '~deep'] },
    dialog: { imports: ['packages/doc/index.ts', 'helper'], bytes: 2000 },
    'packages/doc/index.ts': { package: '@made/doc', bytes: 60_000, imports: ['packages/doc/pages.ts'] },
    'packages/doc/pages.ts': { package: '@made/doc', bytes: 30_000 },
    helper: {},
    deep: { imports: ['helper'] },
  },
  { routes: [route('/', 'page', { parts: [part('dialog', 'dialog', { place: 'action', action: 'open it' })] })] },
);

describe('outlineOf', () => {
  it('shows what each import carries, who holds it, and where it is needed', () => {
    const { imports, splits, start } = outlineOf(app, BASELINE, '/');
    const row = (to: string, from: string) => imports.find((i) => i.to === to && i.from === from)!;
    expect(start.minified).toBe(95_000 - 1000 + 1000);
    expect(row('dialog', 'page')).toMatchObject({
      carried: { minified: 92_000 },
      heldBy: [],
      part: { action: 'open it' },
      line: 1,
    });
    expect(row('packages/doc/index.ts', 'dialog')).toMatchObject({ name: '@made/doc', inside: false });
    expect(row('packages/doc/pages.ts', 'packages/doc/index.ts').inside).toBe(true);
    expect(row('helper', 'page')).toMatchObject({ carried: { minified: 0 }, heldBy: ['dialog'] });
    expect(imports[0].carried.minified).toBeGreaterThanOrEqual(imports[1].carried.minified);
    expect(splits.map((s) => [s.name, s.onLanding, s.group.minified > 0])).toEqual([['deep', true, true]]);
  });

  it('tells the same of a split point: what its load group brings, without what is there already', () => {
    const plan: Plan = { ...BASELINE, decisions: [{ kind: 'detach', import: 'page::dialog' }] };
    const { imports, splits, start } = outlineOf(app, plan, '/', 'dialog');
    expect(start.minified).toBe(92_000);
    expect(imports.map((i) => [i.from, i.to, i.carried.minified])).toEqual([
      ['dialog', 'packages/doc/index.ts', 90_000],
      ['packages/doc/index.ts', 'packages/doc/pages.ts', 30_000],
    ]);
    expect(splits).toEqual([]);
    const nested: Plan = {
      ...plan,
      decisions: [...plan.decisions, { kind: 'detach', import: 'dialog::packages/doc/index.ts' }],
    };
    expect(outlineOf(app, nested, '/', 'dialog')).toMatchObject({
      start: { minified: 2000 },
      splits: [{ target: 'packages/doc/index.ts', group: { minified: expect.any(Number) }, inChain: false }],
    });
  });

  it('marks what the plan changed, with its hints', () => {
    const plan: Plan = {
      ...BASELINE,
      decisions: [
        { kind: 'detach', import: 'page::dialog' },
        { kind: 'join', import: 'page::deep' },
        {
          kind: 'hint',
          hint: { kind: 'prefetch', target: { kind: 'split point', module: 'dialog' }, place: 'markup', routes: ['/'] },
        },
      ],
    };
    const { imports, splits } = outlineOf(app, plan, '/');
    expect(imports.find((i) => i.to === 'deep')).toMatchObject({ changed: true });
    expect(splits).toHaveLength(1);
    expect(splits[0]).toMatchObject({
      name: 'dialog',
      trigger: { on: 'action' },
      onLanding: false,
      imports: [{ key: 'page::dialog', changed: true }],
    });
    expect(splits[0].hints).toHaveLength(1);
  });

  it('is empty for a route that isn’t there', () => {
    expect(outlineOf(app, BASELINE, '/none').imports).toEqual([]);
  });
});
