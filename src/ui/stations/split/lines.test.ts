import { outlineOf } from '../../../core/outline/outline.ts';
import { BASELINE } from '../../../core/plan/types.ts';
import { readSource } from '../../../reader/read-source.ts';
import { SAMPLE } from '../../../test-support/folders.ts';
import { linesOf } from './lines.ts';

const outline = outlineOf(readSource(SAMPLE).snapshot, BASELINE, '/timetable');

describe('lines of the Split list', () => {
  const lines = linesOf(outline, { text: '', inside: false });

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
    const all = linesOf(outline, { text: '', inside: true });
    expect(all.length).toBeGreaterThan(lines.length);
    expect(lines.some((l) => l.kind === 'import' && l.row.inside)).toBe(false);
  });

  it('can be searched by name, file or part', () => {
    const names = (text: string) =>
      linesOf(outline, { text, inside: false }).flatMap((l) => (l.kind === 'heading' ? [] : [l.row.name]));
    expect(names('PAPERKIT')).toEqual(['@saltmarsh/paperkit']);
    expect(names('tide chart')).toEqual(['tide-chart']);
    expect(names('no such thing')).toEqual([]);
  });
});
