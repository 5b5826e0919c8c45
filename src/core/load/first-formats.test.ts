import { ROUND } from '../../test-support/programs.ts';
import { route, sketch } from '../../test-support/snapshots.ts';
import { planned } from '../chunks/planned.ts';
import { BASELINE } from '../plan/types.ts';
import { simulate } from '../sim/simulate.ts';
import { compileLoad } from './compile.ts';
import { FIRST_FORMATS_MS } from './first-format-cost.ts';

/** How long the files of a landing run, by name; `formats`: modules that make something that formats. */
function running(formats: string[], measured?: string) {
  const app = sketch(
    { main: { imports: ['home', '~later'] }, home: {}, later: { imports: ['money'] }, money: {} },
    { routes: [route('/', 'home')] },
  );
  for (const m of app.modules) {
    if (formats.includes(m.path)) m.startsFormats = true;
    if (m.path === measured) m.evaluationMs = 3;
  }
  const { tasks } = simulate(compileLoad(planned(app, BASELINE), '/'), ROUND);
  return new Map(tasks.filter((t) => t.kind === 'evaluate').map((t) => [t.name, t.end - t.start]));
}

describe('the first object of a page that formats', () => {
  const plain = running([]);
  const added = (found: ReadonlyMap<string, number>) => [...plain].map(([name, ms]) => found.get(name)! - ms);

  it('costs the file that makes it, and further files nothing', () => {
    expect(plain.size).toBe(2);
    const costs = expect.closeTo(FIRST_FORMATS_MS, 6);
    const nothing = expect.closeTo(0, 6);
    expect(added(running(['home']))).toEqual([costs, nothing]);
    expect(added(running(['money']))).toEqual([nothing, costs]);
    expect(added(running(['home', 'money']))).toEqual([costs, nothing]);
  });

  it('is in what somebody measured of its module', () => {
    const [start, later] = added(running(['money'], 'money'));
    expect(start).toBeCloseTo(0, 6);
    expect(later).toBeLessThan(FIRST_FORMATS_MS);
  });
});
