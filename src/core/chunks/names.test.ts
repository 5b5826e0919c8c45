import { sketch } from '../../test-support/snapshots.ts';
import type { Atom } from './atoms.ts';
import { chunkName, shortHash, uniqueNames } from './names.ts';
import type { RootDraft } from './roots.ts';

const app = sketch({
  'src/main.ts': { bytes: 100 },
  'src/home/page.tsx': { bytes: 100 },
  'node_modules/kit/a.js': { bytes: 500, package: 'kit' },
  'node_modules/kit/b.js': { bytes: 100, package: 'kit' },
  'node_modules/other/a.js': { bytes: 400, package: 'other' },
  'src/lib/format.ts': { bytes: 700 },
  'src/lib/small.ts': { bytes: 300 },
});
const root = (kind: string, target: number) => ({ kind, target: [target] }) as unknown as RootDraft;
const drafts = [root('entry', 0), root('page', 1), root('page', 5), root('deferred', 6), root('deferred', 4)];
const name = (roots: number[], modules: number[], file?: object) =>
  chunkName(app, drafts, { roots, modules, file } as unknown as Atom);

describe('names of chunks', () => {
  it('say what a chunk of one root is for', () => {
    expect([name([0], [0]), name([1], [1]), name([3], [6])]).toEqual(['entry', 'home page', 'small']);
  });

  it('are those that the code gives to what it imports later, of several the first', () => {
    const named = { ...app, imports: [1, 2].map((n) => ({ from: 0, to: 6, named: `name-${n}` })) } as never;
    expect(chunkName(named, drafts, { roots: [3], modules: [6] } as never)).toBe('name-1');
    expect(chunkName(named, drafts, { roots: [1], modules: [1] } as never)).toBe('home page');
  });

  it('of a shared chunk say the package that is most of it', () => {
    expect(name([1, 2], [2, 3, 6])).toBe('kit');
    // Of 600 in 1,000 it isn’t most yet, and its largest module is just half.
    expect(name([1, 2], [2, 3, 4])).toBe('home page + format');
  });

  it('of a shared chunk say the module that is more than half of it, else who shares it', () => {
    expect(name([1, 2], [5, 6])).toBe('format');
    expect(name([1, 2, 3], [4, 6, 0])).toBe('home page + format + small');
    expect(name([1, 2, 3, 4], [4, 6, 0])).toBe('home page + 3 more');
  });

  it('of what was built say what a file of the document holds, and of nothing its own name', () => {
    expect(name([0], [4, 6, 0], { path: 'x.js' })).toBe('a');
    expect(name([1], [4, 6, 0], { path: 'x.js' })).toBe('home page');
    expect([name([0], [], { path: 'x.js' }), name([0], [])]).toEqual(['x.js', 'empty']);
  });

  it('are told apart by numbers, and hashed alike for the same keys only', () => {
    expect(uniqueNames(['a', 'b', 'a', 'a'])).toEqual(['a', 'b', 'a 2', 'a 3']);
    expect(shortHash(['a', 'b'])).toBe(shortHash(['a', 'b']));
    expect(new Set([['a', 'b'], ['ab'], ['b', 'a'], ['a', ''], ['a']].map(shortHash)).size).toBe(5);
    expect(shortHash(['a'])).toMatch(/^[0-9a-z]{7}$/);
  });
});
