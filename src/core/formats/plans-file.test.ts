import { EVERY_DECISION } from '../../test-support/every-decision.ts';
import { NO_AMENDMENTS } from '../amend/types.ts';
import { DECISION, type Decision, type Plan } from '../plan/types.ts';
import { mergeDecided } from './merge-decided.ts';
import { type Decided, parsePlansFile, writePlansFile } from './plans-file.ts';

const detach = (module: string): Decision => ({ kind: 'detach', module });
const plan = (name: string, ...modules: string[]): Plan => ({ name, description: '', decisions: modules.map(detach) });
const limit = {
  route: '/',
  measure: 'interactive',
  most: 900,
  link: 'clear-cell',
  device: 'laptop',
  cache: 'empty',
} as const;
const decided = (plans: Plan[], amendments: Partial<Decided['amendments']> = {}): Decided => ({
  plans,
  amendments: { ...NO_AMENDMENTS, ...amendments },
});

/** Decisions of every kind that can be. */
const VALID = EVERY_DECISION.filter((d) => {
  try {
    DECISION.check(d, '');
    return true;
  } catch {
    return false;
  }
});

describe('plans beside the code', () => {
  it('are written and read without loss, every kind of decision, and always as the same text', () => {
    const all: Plan = { name: 'All', description: 'Every kind.', basedOn: 'Lean', decisions: VALID };
    expect(new Set(VALID.map((d) => d.kind))).toEqual(new Set(EVERY_DECISION.map((d) => d.kind)));
    const of = decided([plan('Lean', 'a.ts'), all], {
      base: '/app/',
      keep: ['tone-*'],
      limits: [limit],
      routes: [{ realm: 'site', pattern: '/x', kind: 'removed', change: {} }],
    });
    const text = writePlansFile(of);
    const again = parsePlansFile(text, 'yokeline.plan.json');
    expect(again).toEqual(of);
    expect(writePlansFile(again)).toBe(text);
    JSON.parse(text);
  });

  it('have each decision and each limit on a line of its own, so that a change of one is a change of one line', () => {
    const [before, after] = [
      ['a', 'b', 'c'],
      ['a', 'B', 'c'],
    ].map((m) => writePlansFile(decided([plan('Lean', ...m)], { limits: [limit] })).split('\n'));
    expect(before.length).toBe(after.length);
    expect(before.filter((l, i) => l !== after[i])).toEqual(['    { "kind": "detach", "module": "b" },']);
    expect(before.filter((l) => l.includes('"measure"'))).toHaveLength(1);
  });

  it('are laid out for the eye', () => {
    const text = writePlansFile(
      decided([{ ...plan('Lean', 'a', 'b'), basedOn: 'Old' }, plan('Old')], { limits: [limit] }),
    );
    expect(text.slice(0, text.indexOf(' "corrections"'))).toBe(`{
 "format": "yokeline-plans",
 "version": 1,
 "plans": [
  {
   "name": "Lean",
   "description": "",
   "basedOn": "Old",
   "decisions": [
    { "kind": "detach", "module": "a" },
    { "kind": "detach", "module": "b" }
   ]
  },
  {
   "name": "Old",
   "description": "",
   "decisions": []
  }
 ],
 "limits": [
  { "route": "/", "measure": "interactive", "most": 900, "link": "clear-cell", "device": "laptop", "cache": "empty" }
 ],
`);
    const corrections = { keep: ['a', 'b'], base: '/x/' };
    const kept = writePlansFile({ plans: [], amendments: corrections as never });
    expect(kept.slice(kept.indexOf(' "corrections"'))).toBe(` "corrections": {
  "keep": [
   "a",
   "b"
  ],
  "base": "/x/"
 }
}
`);
  });

  it.each([
    [{}, ' "corrections": {}\n}\n'],
    [{ base: '/x/' }, ' "corrections": {\n  "base": "/x/"\n }\n}\n'],
    [{ keep: [] }, ' "corrections": {\n  "keep": []\n }\n}\n'],
  ])('keep what was corrected, however little: %j', (corrections, end) => {
    const text = writePlansFile({ plans: [], amendments: corrections as never });
    expect(text.slice(text.indexOf(' "corrections"'))).toBe(end);
  });

  it('leave out what was measured', () => {
    const text = writePlansFile(decided([], { measured: { modules: { 'a.ts': 1 } } as never }));
    expect(text).not.toContain('measured');
  });

  it.each([
    ['{', 'yokeline.plan.json:1:2'],
    ['{ "format": "else" }', 'yokeline.plan.json'],
    ['{ "format": "yokeline-plans", "version": 9, "plans": [] }', 'yokeline.plan.json: version'],
    ['{ "format": "yokeline-plans", "version": 1, "plans": [{}] }', 'yokeline.plan.json: plans[0].name'],
    [
      '{ "format": "yokeline-plans", "version": 1, "plans": [{ "name": "a", "decisions": [{ "kind": "fly" }] }] }',
      'yokeline.plan.json: plans[0].decisions[0].kind',
    ],
  ])('say by the field what is wrong: %s', (text, at) => {
    expect(() => parsePlansFile(text, 'yokeline.plan.json')).toThrow(expect.objectContaining({ at }));
  });
});

describe('bringing together what was decided here and in the file', () => {
  const lean = plan('Lean', 'a');
  const names = ({ plans }: Decided) => plans.map((p) => [p.name, p.decisions.length]);

  it('takes what only one side changed, of plans and of corrections', () => {
    const base = decided([lean, plan('Old', 'x')], { keep: ['a'] });
    const ours = decided([plan('Lean', 'a', 'b'), plan('Old', 'x'), plan('Mine', 'm')], { keep: ['a'] });
    const theirs = decided([lean, plan('Theirs', 't')], { keep: ['a', 'b'], limits: [limit] });
    const merged = mergeDecided(base, ours, theirs);
    expect(merged.conflicts).toEqual([]);
    expect(names(merged.decided)).toEqual([
      ['Lean', 2],
      ['Mine', 1],
      ['Theirs', 1],
    ]);
    expect(merged.decided.amendments).toMatchObject({ keep: ['a', 'b'], limits: [limit] });
  });

  it('keeps both of a plan that both changed, and tells it', () => {
    const merged = mergeDecided(decided([lean]), decided([plan('Lean', 'b')]), decided([plan('Lean', 'c', 'd')]));
    expect(names(merged.decided)).toEqual([
      ['Lean', 1],
      ['Lean (file)', 2],
    ]);
    expect(merged.conflicts).toEqual([expect.stringContaining('“Lean (file)”')]);
  });

  it('finds a name for each of them that nobody has, here or there', () => {
    const [a, b] = [plan('P', 'x'), plan('P', 'y')];
    const taken = [plan('P (file)', 'f'), plan('P (file) 2', 'g')];
    const merged = mergeDecided(decided([lean]), decided([a, ...taken]), decided([b, plan('P (file)', 'other')]));
    expect(names(merged.decided).map(([n]) => n)).toEqual([
      ...['P', 'P (file) 3', 'P (file)', 'P (file) (file)', 'P (file) 2'],
    ]);
    expect(merged.conflicts).toHaveLength(2);
  });

  it('removes nothing that the other side changed', () => {
    const gone = mergeDecided(decided([lean]), decided([plan('Lean', 'b')]), decided([]));
    expect([names(gone.decided), gone.conflicts.length]).toEqual([[['Lean', 1]], 1]);
    const back = mergeDecided(decided([lean]), decided([]), decided([plan('Lean', 'b', 'c')]));
    expect([names(back.decided), back.conflicts.length]).toEqual([[['Lean', 2]], 1]);
    expect(mergeDecided(decided([lean]), decided([lean]), decided([])).decided.plans).toEqual([]);
    expect(mergeDecided(decided([lean]), decided([]), decided([lean])).decided.plans).toEqual([]);
    expect(mergeDecided(decided([lean]), decided([]), decided([lean])).conflicts).toEqual([]);
  });

  it('never loses a plan or a decision that nobody removed', () => {
    const sets = [[], ['a'], ['b'], ['a', 'b']];
    for (const b of sets)
      for (const m of sets)
        for (const t of sets) {
          const of = (modules: string[]) => decided(modules.length === 0 ? [] : [plan('P', ...modules)]);
          const { decided: out } = mergeDecided(of(b), of(m), of(t));
          const kept = new Set(out.plans.flatMap((p) => p.decisions.map((d) => JSON.stringify(d))));
          const wanted = (side: string[]) => JSON.stringify(side) !== JSON.stringify(b);
          for (const side of [m, t].filter(wanted))
            for (const d of side) expect(kept).toContain(JSON.stringify(detach(d)));
        }
  });

  it('tells which corrections both changed, and keeps those from here', () => {
    const of = (keep: string[], base: string) => decided([], { keep, base });
    const merged = mergeDecided(of(['a'], '/'), of(['b'], '/x/'), of(['c'], '/x/'));
    expect(merged.decided.amendments).toMatchObject({ keep: ['b'], base: '/x/' });
    expect(merged.conflicts).toEqual([expect.stringContaining('names that are put together while the app runs')]);
    expect(mergeDecided(of(['a'], '/'), of(['b'], '/'), of(['a'], '/y/')).decided.amendments).toMatchObject({
      ...{ keep: ['b'], base: '/y/' },
    });
  });

  it('of sides that never agreed takes all of both', () => {
    const merged = mergeDecided(null, decided([lean]), decided([plan('Other', 'o')], { base: '/x/' }));
    expect(names(merged.decided).map(([n]) => n)).toEqual(['Lean', 'Other']);
    expect(merged.decided.amendments.base).toBe('/x/');
    expect(merged.conflicts).toEqual([]);
    const both = mergeDecided(null, decided([], { keep: ['a'] }), decided([], { keep: ['b'] }));
    expect([both.decided.amendments.keep, both.conflicts.length]).toEqual([['a'], 1]);
    const bare = mergeDecided(null, decided([], { keep: ['a'] }), decided([], { keep: [] }));
    expect([bare.decided.amendments.keep, bare.conflicts]).toEqual([['a'], []]);
  });
});
