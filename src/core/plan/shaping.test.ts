import { route, sketch } from '../../test-support/snapshots.ts';
import { addShape, isUnshaped, noShaping, type Shaping } from './shaping.ts';
import { takenOut } from './taken-out.ts';
import { BASELINE, type Shape } from './types.ts';

const app = sketch(
  {
    main: { imports: ['src/a', 'src/b', 'kit'] },
    'src/a': { imports: ['~later'] },
    'src/b': {},
    later: {},
    page: {},
    kit: { package: 'kit' },
  },
  { routes: [route('/', 'main'), route('/b', 'page', { layouts: ['src/b'] })] },
);

const shapedBy = (shape: Shape): { shaping: Shaping; trouble: string | null } => {
  const shaping = noShaping();
  return { trouble: addShape(shaping, app, shape), shaping };
};

describe('wishes about files', () => {
  it.each<[Shape, Partial<Shaping>]>([
    [{ kind: 'gather', name: 'g', match: { package: 'kit' } }, { gather: [{ name: 'g', modules: new Set([5]) }] }],
    [{ kind: 'apart', match: { path: 'src/*' } }, { apart: [new Set([1, 2])] }],
    [{ kind: 'together', modules: ['later', 'main'] }, { together: [new Set([3, 0])] }],
    [{ kind: 'floor', bytes: 7 }, { floor: 7 }],
    [{ kind: 'ceiling', requests: 7 }, { ceiling: 7 }],
    [{ kind: 'copy', below: 7 }, { copyBelow: 7 }],
    [{ kind: 'grain' }, { eachModule: true }],
  ])('%j changes that and nothing else, and files are shaped then', (shape, changed) => {
    const { shaping, trouble } = shapedBy(shape);
    expect(trouble).toBeNull();
    expect(shaping).toEqual({ ...noShaping(), ...changed });
    expect(isUnshaped(shaping)).toBe(false);
  });

  it('of names alone leave the files as they come', () => {
    const { shaping } = shapedBy({ kind: 'chunk name', chunk: 'c', name: 'mine' });
    expect(shaping.names).toEqual(new Map([['c', 'mine']]));
    expect(isUnshaped(shaping)).toBe(true);
    expect(isUnshaped(noShaping())).toBe(true);
  });

  it('say what they don’t meet, and go on with the rest', () => {
    expect(shapedBy({ kind: 'apart', match: { package: 'none' } }).trouble).toBe('no module matches none');
    expect(shapedBy({ kind: 'gather', name: 'g', match: { path: 'x/*' } }).shaping.gather).toEqual([]);
    const half = shapedBy({ kind: 'together', modules: ['main', 'gone'] });
    expect(half.trouble).toBe('no module gone in this snapshot');
    expect(half.shaping.together).toEqual([new Set([0])]);
  });
});

describe('taking out what an import brings', () => {
  const detach = (key: string) => ({ kind: 'detach', import: key });
  const onAct = (splitPoint: string) => ({ kind: 'trigger', splitPoint, fetch: { on: 'action' } });

  it('waits until it is used, unless a route has a place for it or the plan says when', () => {
    expect(takenOut(app, BASELINE, 'main::src/a')).toEqual([detach('main::src/a'), onAct('src/a')]);
    // A layout has its place.
    expect(takenOut(app, BASELINE, 'main::src/b')).toEqual([detach('main::src/b')]);
    const planned = {
      ...BASELINE,
      decisions: [{ kind: 'trigger', splitPoint: 'src/a', fetch: { on: 'idle' } } as const],
    };
    expect(takenOut(app, planned, 'main::src/a')).toEqual([detach('main::src/a')]);
    expect(takenOut(app, BASELINE, 'main::gone')).toEqual([detach('main::gone')]);
  });
});
