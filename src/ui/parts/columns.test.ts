import { keptStorage } from '../../test-support/kept-storage.ts';
import { COLUMN_WIDTHS, keptColumnWidth } from './columns.tsx';
import { keepInMap } from './kept-map.ts';

describe('the width of a column is remembered', () => {
  const kept = keptStorage();

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
