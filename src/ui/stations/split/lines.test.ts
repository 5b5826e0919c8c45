import { outlineOf } from '../../../core/outline/outline.ts';
import { BASELINE } from '../../../core/plan/types.ts';
import { readSource } from '../../../reader/read-source.ts';
import { SAMPLE } from '../../../test-support/folders.ts';
import { type GroupLine, groupDecisions, type ListFilter, linesOf } from './lines.ts';

const outline = outlineOf(readSource(SAMPLE).snapshot, BASELINE, '/timetable');
const ALL: ListFilter = { text: '', inside: false, by: 'weight', open: new Set(), within: null };

describe('lines of the Split list', () => {
  const lines = linesOf(outline, ALL);

  it('come in three sections, imports by what they carry', () => {
    expect(lines.flatMap((l) => (l.kind === 'heading' ? [l.title] : []))).toEqual([
      'Deferred already',
      'In the start',
      'In the start, held by others',
    ]);
    const carried = lines.flatMap((l) => (l.kind === 'import' ? [l.row.carried.minified] : []));
    expect(carried).toEqual([...carried].sort((a, b) => b - a));
    expect(lines.find((l) => l.kind === 'import' && l.row.name === 'ticket-dialog')).toMatchObject({
      row: { part: { action: 'make ticket' } },
    });
  });

  it('hide the insides of packages until asked', () => {
    const all = linesOf(outline, { ...ALL, inside: true });
    expect(all.length).toBeGreaterThan(lines.length);
    expect(lines.some((l) => l.kind === 'import' && l.row.inside)).toBe(false);
  });

  it('can be searched by name, file or part', () => {
    const names = (text: string) => linesOf(outline, { ...ALL, text }).flatMap((l) => ('row' in l ? [l.row.name] : []));
    expect(names('PAPERKIT')).toEqual(['@saltmarsh/paperkit']);
    expect(names('tide chart')).toEqual(['tide-chart']);
    expect(names('no such thing')).toEqual([]);
  });

  it('can be folded by package and folder, heaviest first; each module weighs once', () => {
    const folded = linesOf(outline, { ...ALL, by: 'folder' });
    const groups = folded.filter((l): l is GroupLine => l.kind === 'group');
    expect(folded.some((l) => l.kind === 'import')).toBe(false);
    expect(groups.reduce((sum, g) => sum + g.rows.length, 0)).toBe(lines.filter((l) => l.kind === 'import').length);
    const weights = groups.map((g) => g.own.compressed);
    expect(weights).toEqual([...weights].sort((a, b) => b - a));
    const own = new Map(outline.imports.map((i) => [i.to, i.own.minified]));
    expect(groups.reduce((sum, g) => sum + g.own.minified, 0)).toBe([...own.values()].reduce((a, b) => a + b, 0));
    expect(groups[0].package).not.toBeNull();
    const [first] = groups;
    const opened = linesOf(outline, { ...ALL, by: 'folder', open: new Set([first.id]) });
    expect(opened.length).toBe(folded.length + first.rows.length);
  });

  it('of a group mean one decision for a package, and the imports from outside for a folder', () => {
    const groups = linesOf(outline, { ...ALL, by: 'folder' }).filter((l): l is GroupLine => l.kind === 'group');
    expect(groupDecisions(groups.find((g) => g.title === '@saltmarsh/paperkit')!)).toEqual([
      { kind: 'detach', package: '@saltmarsh/paperkit' },
    ]);
    const folder = groups.find((g) => g.title === 'src/timetable')!;
    const keys = groupDecisions(folder).map((d) => ('import' in d ? d.import : ''));
    expect(keys.length).toBeLessThan(folder.rows.length);
    expect(keys.every((k) => !k.startsWith('src/timetable/'))).toBe(true);
  });
});
