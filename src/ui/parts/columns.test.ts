import { COLUMN_WIDTHS, keptColumnWidth } from './columns.tsx';
import { keepInMap } from './kept-map.ts';

describe('the width of a column is remembered', () => {
  const kept = new Map<string, string>();
  const storage = {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => void kept.set(k, v),
  };
  beforeAll(() => Object.defineProperty(globalThis, 'localStorage', { value: storage, configurable: true }));
  afterAll(() => Reflect.deleteProperty(globalThis, 'localStorage'));
  beforeEach(() => kept.clear());

  it('for each column of each list, until it is set back', () => {
    keepInMap(COLUMN_WIDTHS, 'chunks: name', 310);
    keepInMap(COLUMN_WIDTHS, 'copies: files', 90);
    expect(keptColumnWidth('chunks: name')).toBe(310);
    expect(keptColumnWidth('copies: files')).toBe(90);
    expect(keptColumnWidth('chunks: files')).toBeNull();
    keepInMap(COLUMN_WIDTHS, 'chunks: name', null);
    expect(keptColumnWidth('chunks: name')).toBeNull();
  });

  it.each(['x', 'null', '{"chunks: name":"310"}', '{"chunks: name":3}', '{"chunks: name":1e9}'])(
    'unless what is kept is no width: %s',
    (text) => {
      kept.set(COLUMN_WIDTHS, text);
      expect(keptColumnWidth('chunks: name')).toBeNull();
    },
  );
});
