import { route, sketch } from '../../test-support/snapshots.ts';
import { BASELINE } from '../plan/types.ts';
import { movedBy } from './moved.ts';

describe('what moves by a decision', () => {
  const app = sketch(
    {
      main: { imports: ['dialog', '~far'] },
      dialog: { bytes: 700, imports: ['lib'] },
      lib: { bytes: 9000 },
      far: { imports: ['lib'] },
    },
    { routes: [route('/', 'main')] },
  );

  it('is what the new split point brings, and what others now bring themselves', () => {
    const moved = movedBy(app, BASELINE, [{ kind: 'detach', import: 'main::dialog' }]);
    expect(moved).toEqual([
      { root: 'site:dialog', bytes: 9700 },
      { root: 'site:entry', bytes: -9700 },
      { root: 'site:far', bytes: 9000 },
    ]);
  });

  it('is nothing when nothing changes', () => {
    expect(movedBy(app, BASELINE, [{ kind: 'join', import: 'main::dialog' }])).toEqual([]);
  });
});
