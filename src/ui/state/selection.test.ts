import { chosenChunk, isMarked } from './selection.ts';

const brings = { chunk: 'site/1', splitPoints: ['src/a.ts', 'src/b.ts'] };

describe('what is chosen', () => {
  it('marks the chunk wherever it was chosen: by itself, by its request, or by a split point that needs it', () => {
    expect(isMarked({ kind: 'chunk', id: 'site/1' }, brings)).toBe(true);
    expect(isMarked({ kind: 'request', address: '/x.js', chunk: 'site/1' }, brings)).toBe(true);
    expect(isMarked({ kind: 'split point', module: 'src/b.ts' }, brings)).toBe(true);
    expect(isMarked({ kind: 'split point', module: 'src/c.ts' }, brings)).toBe(false);
    expect(isMarked({ kind: 'chunk', id: 'site/2' }, brings)).toBe(false);
    expect(isMarked({ kind: 'request', address: '/photo.jpg', chunk: null }, brings)).toBe(false);
    expect(isMarked(null, brings)).toBe(false);
    expect(isMarked({ kind: 'request', address: '/photo.jpg', chunk: null }, null)).toBe(false);
  });

  it('is a chunk only for chunks and requests of chunks', () => {
    expect(chosenChunk({ kind: 'request', address: '/x.js', chunk: 'site/1' })).toBe('site/1');
    expect(chosenChunk({ kind: 'import', key: 'a::b' })).toBeNull();
  });
});
