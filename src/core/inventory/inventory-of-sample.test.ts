import { readSource } from '../../reader/read-source.ts';
import { SAMPLE } from '../../test-support/folders.ts';
import { BASELINE } from '../plan/types.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import { inventoryOf } from './inventory.ts';
import { whereabouts } from './whereabouts.ts';

it('tells on the sample why the document maker is on the timetable, and what finds the planted leaks', () => {
  const { snapshot } = readSource(SAMPLE);
  const found = whereabouts(snapshot, BASELINE, 'packages/paperkit/src/index.ts')!;
  const [path] = found.atStart.find((r) => r.pattern === '/timetable')!.paths;
  expect(path.slice(-3).map((s) => [s.path, s.line])).toEqual([
    ['src/timetable/departure-board.tsx', 6],
    ['src/tickets/ticket-dialog.tsx', 1],
    ['packages/paperkit/src/index.ts', null],
  ]);
  const { leaks } = inventoryOf(snapshot, BASELINE, DEFAULT_CONDITIONS);
  expect(leaks.map((l) => [l.from, l.line, l.name])).toEqual(
    expect.arrayContaining([
      ['src/app/frame.tsx', 8, 'berth-finder'],
      ['src/app/routes.tsx', 4, 'timetable-page'],
      ['src/app/routes.tsx', 5, 'sailing-page'],
    ]),
  );
  expect(leaks.map((l) => l.name)).not.toContain('app');
  expect(leaks.find((l) => l.name === 'berth-finder')).toMatchObject({ neededBy: ['/harbour'] });
});
