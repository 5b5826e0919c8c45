import { part, route, sketch } from '../../test-support/snapshots.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { aroundPage, modulesOfPart } from './part-modules.ts';

const app: Snapshot = sketch(
  { main: { imports: ['frame', 'outer', 'home', 'chart'] }, frame: {}, outer: {}, home: {}, chart: {} },
  {
    entries: [
      { realm: 'site', kind: 'document', document: 'index.html', modules: ['main'], frame: 'frame' },
      { realm: 'admin', kind: 'document', document: 'admin.html', modules: ['main'] },
    ],
    routes: [route('/', 'home')],
  },
);

describe('what stands around a page', () => {
  it('is the frame of its own entry, outside of its layouts', () => {
    expect(aroundPage(app, route('/', 'home', { layouts: ['outer'] }))).toEqual(['frame', 'outer']);
    expect(aroundPage(app, route('/', 'home', { realm: 'admin', layouts: ['outer'] }))).toEqual(['outer']);
  });

  it('is no frame where that is the page or a layout itself, or the server draws', () => {
    expect(aroundPage(app, route('/', 'frame'))).toEqual([]);
    expect(aroundPage(app, route('/', 'home', { layouts: ['outer', 'frame'] }))).toEqual(['outer', 'frame']);
    expect(aroundPage(app, route('/', 'home', { rendering: 'server' }))).toEqual([]);
  });

  it('is drawn with the shell and the page; parts by their own module', () => {
    const home = route('/', 'home', { layouts: ['outer'], parts: [part('sales', 'chart')] });
    const modules = (id: string) => modulesOfPart(app, home, id);
    expect([modules('shell'), modules('page')]).toEqual([['frame'], ['outer', 'home']]);
    expect([modules('sales'), modules('src/unnamed.js')]).toEqual([['chart'], ['src/unnamed.js']]);
  });
});
