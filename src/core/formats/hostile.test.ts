import fc from 'fast-check';
import { anyApp, part, route, sketch } from '../../test-support/snapshots.ts';
import { NO_AMENDMENTS } from '../amend/types.ts';
import { InputError } from '../errors.ts';
import { handoff } from '../handoff/handoff.ts';
import { predict } from '../predict/predict.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import { parseJson } from '../text/json.ts';
import { freePlanName, parsePlanFile, writePlanFile } from './plan-file.ts';
import {
  PROJECT_FORMAT,
  PROJECT_VERSION,
  type ProjectFile,
  parseProject,
  studied,
  writeProject,
} from './project-file.ts';

const projectOf = (snapshot: ProjectFile['snapshot'], more: Partial<ProjectFile> = {}): ProjectFile => ({
  format: PROJECT_FORMAT,
  version: PROJECT_VERSION,
  snapshot,
  plans: [],
  amendments: NO_AMENDMENTS,
  ...more,
});

describe('files from strangers', () => {
  it.each<[string, string]>([
    ['lists', '['.repeat(100_000)],
    ['objects', '{"a":'.repeat(100_000)],
    ['closed lists', `${'['.repeat(5000)}${']'.repeat(5000)}`],
  ])('that nest deeply are refused with the place: %s', (_, text) => {
    expect(() => parseProject(text, 'deep.json')).toThrow(InputError);
    expect(() => parseProject(text, 'deep.json')).toThrow(/Nested too deeply/);
    expect(() => parseProject(text, 'deep.json')).toThrow(
      expect.objectContaining({ at: expect.stringMatching(/^deep.json:1:\d+$/) }),
    );
  });

  it('may hold brackets in their texts, however many', () => {
    const text = JSON.stringify({ said: '[{"\\'.repeat(1000) });
    expect(parseJson(text, 'x')).toEqual(JSON.parse(text));
  });

  it('may name modules, plans and routes like members of objects, which mean nothing', () => {
    const names = ['__proto__', 'constructor', 'toString'];
    const snapshot = sketch(
      {
        main: { imports: names },
        __proto___: {},
        ...Object.fromEntries(names.map((n) => [n, { imports: ['~hasOwnProperty'] }])),
        hasOwnProperty: {},
      },
      {
        routes: names.map((n) =>
          route(`/${n}`, n, { parts: [part(n, 'hasOwnProperty', { place: 'action', action: n })] }),
        ),
      },
    );
    const plan = {
      name: '__proto__',
      description: '',
      decisions: [{ kind: 'detach' as const, import: 'main::constructor' }],
    };
    const texts = JSON.parse('{"__proto__":"a","constructor":"b"}');
    const read = parseProject(writeProject(projectOf(snapshot, { plans: [plan], texts })), 'names.json');
    expect(Object.keys(read.texts!)).toEqual(['__proto__', 'constructor']);
    expect(read.texts!.toString).toBeUndefined();
    const app = studied(read);
    for (const n of names)
      expect(predict(app, plan, `/${n}`, DEFAULT_CONDITIONS).reading.readout.requests).toBeGreaterThan(1);
    const { artefacts } = handoff(app, plan, null);
    expect(Object.keys(JSON.parse(artefacts.find((a) => a.kind === 'manifest')!.text).routes)).toHaveLength(3);
    expect(({} as Record<string, unknown>).polluted).toBeUndefined();
  });

  it('with more decisions than any plan has are refused', () => {
    const decisions = Array.from({ length: 20_001 }, () => ({ kind: 'grain' as const }));
    const text = writeProject(projectOf(sketch({ main: {} }), { plans: [{ name: 'P', description: '', decisions }] }));
    expect(() => parseProject(text, 'x.json')).toThrow(/Too many decisions.*plans\[0\].decisions has 20001/s);
  });

  it('that are wrong anywhere are read or refused with a field, never anything else', () => {
    const junk = fc.oneof(
      fc.constant(null),
      fc.constant(-1),
      fc.constant(1e308),
      fc.constant('__proto__'),
      fc.constant([]),
      fc.constant({}),
      fc.boolean(),
      fc.nat(9),
      fc.string(),
    );
    fc.assert(
      fc.property(
        anyApp(8),
        fc.array(fc.tuple(fc.nat(), junk, fc.boolean()), { minLength: 1, maxLength: 3 }),
        (snapshot, changes) => {
          const whole = JSON.parse(
            writeProject(
              projectOf(snapshot, {
                plans: [{ name: 'P', description: '', decisions: [{ kind: 'loader', loader: 'listed' }] }],
              }),
            ),
          );
          for (const [at, value, gone] of changes) {
            const places: [Record<string, unknown>, string][] = [];
            const collect = (node: unknown) => {
              if (typeof node !== 'object' || node === null) return;
              for (const key of Object.keys(node)) {
                places.push([node as Record<string, unknown>, key]);
                collect((node as Record<string, unknown>)[key]);
              }
            };
            collect(whole);
            const [owner, key] = places[at % places.length];
            if (gone && !Array.isArray(owner)) delete owner[key];
            else owner[key] = value;
          }
          try {
            parseProject(JSON.stringify(whole), 'junk.json');
          } catch (error) {
            expect(error).toBeInstanceOf(InputError);
            expect((error as InputError).at).not.toBe('');
          }
        },
      ),
      { numRuns: 400 },
    );
  });
});

describe('a plan by itself', () => {
  const app = sketch({ main: { imports: ['a'] }, a: {} });
  const plan = { name: 'Lean', description: 'less', decisions: [{ kind: 'detach' as const, import: 'main::a' }] };

  it('is read as it was written, and knows the app that it is for', () => {
    expect(parsePlanFile(writePlanFile(app, plan), 'x.json')).toMatchObject({
      plan,
      app: { name: 'sketch', modules: 2, imports: 1 },
    });
  });

  it.each<[string, RegExp]>([
    ['{}', /Not a plan file/],
    ['[]', /x.json must be an object/],
    ['{"format":"yokeline-plan","version":2}', /another version/],
    [writePlanFile(app, plan).replace('detach', 'burn'), /plan.decisions\[0\]/],
  ])('that isn’t one says so: %s', (text, words) => {
    expect(() => parsePlanFile(text, 'x.json')).toThrow(words);
  });

  it('takes a name that is free', () => {
    expect(freePlanName('A', ['B'])).toBe('A');
    expect(freePlanName('A', ['A', 'A 2'])).toBe('A 3');
  });
});
