import { sketch } from '../../test-support/snapshots.ts';
import { SNAPSHOT } from './check.ts';
import type { Snapshot } from './types.ts';

const app = sketch({ a: { imports: ['b'] }, b: {} });
const plain = (of: Snapshot) => JSON.parse(JSON.stringify(of));
const file = (more: object) => ({
  ...{ path: 'a.js', kind: 'script', bytes: { minified: 1, gzip: 1, brotli: 1 }, inside: 'sources' },
  ...{ modules: [{ module: 0, bytes: 1 }], contents: [], imports: [], ...more },
});
const output = (files: object[], tags: object[] = []) => ({ files, starts: [{ realm: 'site', tags }] });

describe('a snapshot from outside', () => {
  it('is taken where its parts fit together', () => {
    expect(SNAPSHOT.check(plain(app), 's')).toMatchObject({ name: 'sketch' });
    const built = output(
      [file({ imports: [{ to: 0, kind: 'static', line: 1 }] })],
      [{ file: 0, placement: 'module', offset: 1 }],
    );
    expect(() => SNAPSHOT.check({ ...plain(app), output: built }, 's')).not.toThrow();
    const drawn = {
      ...plain(app),
      modules: app.modules.map((m, i) => ({ ...m, ...(i ? {} : { draws: [{ module: 1, times: 2 }] }) })),
    };
    expect(() => SNAPSHOT.check(drawn, 's')).not.toThrow();
  });

  it.each<[string, object]>([
    ['s.modules[1].path', { modules: [app.modules[0], app.modules[0]] }],
    ['s.imports[0].to', { imports: [{ ...app.imports[0], to: 2 }] }],
    ['s.imports[0].from', { imports: [{ ...app.imports[0], from: 2 }] }],
    [
      's.modules[0].draws[1].module',
      {
        modules: [
          {
            ...app.modules[0],
            draws: [
              { module: 1, times: 1 },
              { module: 2, times: 1 },
            ],
          },
          app.modules[1],
        ],
      },
    ],
    ['s.entries[0].modules[1]', { entries: [{ ...app.entries[0], modules: ['a', 'gone'] }] }],
    ['s.output.files[0].modules[0].module', { output: output([file({ modules: [{ module: 2, bytes: 1 }] })]) }],
    ['s.output.files[0].imports[0].to', { output: output([file({ imports: [{ to: 1, kind: 'static', line: 1 }] })]) }],
    ['s.output.starts[0].tags[0].file', { output: output([file({})], [{ file: 1, placement: 'module', offset: 1 }]) }],
  ])('is refused by the field that names nothing: %s', (at, more) => {
    expect(() => SNAPSHOT.check({ ...plain(app), ...more }, 's')).toThrow(expect.objectContaining({ at }));
  });
});
