import { route, sketch } from '../../test-support/snapshots.ts';
import { planned } from '../chunks/planned.ts';
import { BASELINE, type Decision } from '../plan/types.ts';
import type { BuiltFile, BuiltOutput } from '../snapshot/output-types.ts';
import { compileLoad } from './compile.ts';

const NAMES = ['a', 'b', 'c', 'd'];

/** An app that a build cut into a file for each module, with tags of its own document. */
function markup(
  tags: BuiltOutput['starts'][number]['tags'],
  imports: Record<number, number[]> = {},
  decisions: Decision[] = [],
) {
  const app = sketch(
    { a: { imports: ['b', 'c'] }, b: {}, c: { imports: ['d'] }, d: {}, sheet: { kind: 'style' } },
    { routes: [route('/', 'a')] },
  );
  const files = [...NAMES, 'sheet'].map(
    (name, at): BuiltFile => ({
      path: `${name}.${name === 'sheet' ? 'css' : 'js'}`,
      kind: name === 'sheet' ? 'style' : 'script',
      bytes: { minified: 1000, gzip: 400, brotli: 300 },
      inside: 'sources',
      modules: [{ module: at, bytes: 900 }],
      contents: [],
      imports: (imports[at] ?? []).map((to) => ({ to, kind: 'static' as const, line: 1 })),
    }),
  );
  const snapshot = { ...app, output: { files, starts: [{ realm: 'site', tags }] } };
  const program = compileLoad(planned(snapshot, { ...BASELINE, decisions }), '/');
  const named = (resources: readonly number[]) => resources.map((r) => program.resources[r].address.replace('/', ''));
  return program.document.markup.flatMap((item) => {
    if (item.tag === 'script') return [`${item.mode} ${named(program.groups[item.group].resources).join('+')}`];
    return item.tag === 'body' ? ['body'] : [];
  });
}

const tag = (file: number, placement: BuiltOutput['starts'][number]['tags'][number]['placement'], offset: number) => ({
  ...{ file, placement, offset },
});

describe('the tags of a built document', () => {
  it('stand in its order, blocking ones in the second half at the end of the body', () => {
    const tags = [
      tag(1, 'blocking', 100),
      tag(2, 'defer', 900),
      tag(3, 'blocking', 500),
      tag(0, 'blocking', 501),
      tag(4, 'style', 1000),
    ];
    const all = markup(tags);
    const body = all.indexOf('body');
    expect(body).toBeGreaterThan(0);
    expect(all.slice(0, body)).toEqual(expect.arrayContaining(['blocking b.js', 'defer c.js', 'blocking d.js']));
    expect(all.slice(body)).toContain('blocking a.js');
  });

  it('bring with a module all that it imports, each once, those before it that it needs', () => {
    const all = markup([tag(0, 'module', 10), tag(2, 'module', 20)], { 0: [1, 2], 2: [3, 1], 3: [0] });
    expect(all.filter((t) => t.startsWith('module'))).toEqual(['module b.js+d.js+c.js+a.js']);
  });

  it('leave out what is named twice, and add what a plan adds to the start', () => {
    const all = markup([tag(0, 'module', 10), tag(0, 'module', 30)], { 0: [1] });
    expect(all.filter((t) => t !== 'body')).toEqual(['module b.js+a.js', 'defer c.js', 'defer d.js']);
  });
});
