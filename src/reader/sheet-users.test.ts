import { SheetUsers } from './sheet-users.ts';
import { mentionedWords } from './unused-rules.ts';

interface File {
  path: string;
  text: string;
}

function sheetUsers(sheets: readonly File[], scripts: readonly File[]) {
  const users = new SheetUsers(sheets);
  for (const { path, text } of scripts) users.add(path, mentionedWords(text));
  return users.uses();
}

const sheet = (path: string, text: string) => ({ path, text });

describe('who uses a style sheet', () => {
  it('is told by names that no other sheet has, put together ones too', () => {
    const sheets = [
      sheet(
        'crew.css',
        '.duty { x: y } .duty-night td, #roster { x: y } @media print { .duty { a: b } } .shared { a: b }',
      ),
      sheet('trips.css', '.trip { a: b } .shared { c: d } @keyframes t { from { a: b } }'),
    ];
    const scripts = [
      { path: 'a.ts', text: 'const k = `duty-${x}`;' },
      { path: 'b.ts', text: 'el.id = "roster"; el.className = "shared";' },
      { path: 'c.ts', text: 'const tripwire = 1, c = "trip big";' },
      { path: 'd.ts', text: 'const trips = 2;' },
    ];
    expect(sheetUsers(sheets, scripts)).toEqual([
      { module: 'crew.css', by: ['a.ts', 'b.ts'] },
      { module: 'trips.css', by: ['c.ts'] },
    ]);
  });

  it('is not told for sheets that are for everybody, name their classes themselves, or that nobody mentions', () => {
    const scripts = [{ path: 'a.ts', text: '"bar foo baz"' }];
    expect(sheetUsers([sheet('base.css', 'body { a: b } .foo { a: b }')], scripts)).toEqual([]);
    expect(sheetUsers([sheet('x.module.css', '.foo { a: b }')], scripts)).toEqual([]);
    expect(sheetUsers([sheet('y.css', '.other { a: b }')], scripts)).toEqual([]);
    expect(sheetUsers([sheet('broken.css', '.foo { a: ')], scripts)).toEqual([]);
  });
});
