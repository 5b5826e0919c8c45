import { part, route, sketch } from '../../test-support/snapshots.ts';
import { actsOf, moduleOfAct, possibleActs, stepOf } from './acts.ts';

describe('acts', () => {
  const app = sketch(
    { 'main.js': {}, 'page.js': {}, 'far.js': {}, 'admin.js': {}, 'dialog.js': {}, 'notes.js': {} },
    {
      routes: [
        route('/', 'page.js', {
          parts: [
            part('dialog', 'dialog.js', { place: 'action', action: 'Buy a ticket' }),
            part('notes', 'notes.js', { place: 'below' }),
            part('head', 'page.js', { place: 'first screen' }),
          ],
        }),
        route('/far', 'far.js', { parts: [part('map', 'notes.js', { place: 'below' })] }),
        route('/admin', 'admin.js', { realm: 'admin' }),
      ],
    },
  );

  it('are those of the route, and moves to the others of its realm', () => {
    const of = (landing: string, now = landing) => possibleActs(app, landing, now).map((a) => `${a.does} ${a.name}`);
    expect(of('/')).toEqual(['press dialog', 'scroll notes', 'move /far']);
    expect(of('/', '/far')).toEqual(['scroll map', 'move /']);
    expect(of('/admin')).toEqual([]);
    expect(of('/nowhere')).toEqual([]);
  });

  it('go on from where the one before led', () => {
    const acts = actsOf(app, '/', ['dialog', '/far', 'map', '/', 'notes']);
    expect(acts.map((a) => a.on.pattern)).toEqual(['/', '/far', '/far', '/', '/']);
    expect(acts.map((a) => app.modules[moduleOfAct(app, a)!].path)).toEqual([
      ...['dialog.js', 'far.js', 'notes.js', 'page.js', 'notes.js'],
    ]);
    expect(acts.map((a) => stepOf(a, 5))).toEqual([
      { does: 'act', part: 'dialog', dwellMs: 5, leadMs: 0 },
      { does: 'move', to: '/far', by: 'inside', holds: [], dwellMs: 5, leadMs: 0 },
      { does: 'scroll', part: 'map', dwellMs: 5, leadMs: 0 },
      { does: 'move', to: '/', by: 'inside', holds: [], dwellMs: 5, leadMs: 0 },
      { does: 'scroll', part: 'notes', dwellMs: 5, leadMs: 0 },
    ]);
  });

  it('that can’t be done where the person is by then are refused with those that can', () => {
    expect(() => actsOf(app, '/', ['/far', 'dialog'])).toThrow(
      'Parts of /far behind an act, or below its first screen: map. Routes that can be moved to: /.',
    );
    expect(() => actsOf(app, '/admin', ['/'])).toThrow(/first screen: none\. Routes that can be moved to: none/);
  });
});
