import { part, route, sketch } from '../../test-support/snapshots.ts';
import type { Part } from '../snapshot/route-types.ts';
import type { VisitorNotes } from '../snapshot/visitor-types.ts';
import { withAct, withMove } from './edit.ts';
import { ASSUMED, modelOf, scaled } from './model.ts';

const app = (visitors?: VisitorNotes, parts: Part[] = []) =>
  sketch(
    { main: { imports: ['a', 'b', 'c'] }, a: {}, b: {}, c: {} },
    {
      routes: [
        route('/a', 'a', { links: ['/b', '/c'], parts, landings: 30 }),
        route('/b', 'b', { landings: 10 }),
        route('/c', 'c', { landings: 0 }),
      ],
      ...(visitors ? { visitors } : {}),
    },
  );
const habits = (visitors?: VisitorNotes, parts?: Part[]) => modelOf(app(visitors, parts)).model.routes[0];

it('assumes what nobody says, and leaves landings to the routes', () => {
  const { model, troubles } = modelOf(app());
  expect(troubles).toEqual([]);
  expect(model.routes.map((r) => r.landings)).toEqual([0.75, 0.25, 0]);
  expect(model.routes[0].moves).toEqual([
    { to: '/b', share: ASSUMED.goesOn / 2 },
    { to: '/c', share: ASSUMED.goesOn / 2 },
  ]);
  expect(model.routes[0].dwell).toEqual(ASSUMED.dwell);
  expect(model.touch).toBeNull();
});

it('takes the shares of parts for those of their acts, until somebody says otherwise', () => {
  const parts = [
    part('x', 'a', { place: 'action', share: 0.2 }),
    part('y', 'b', { place: 'below', share: 0.5 }),
    part('z', 'c'),
  ];
  expect(habits(undefined, parts).acts.map((a) => [a.part, a.scroll, a.share])).toEqual([
    ['x', false, 0.2],
    ['y', true, 0.5],
  ]);
  const said = { routes: [{ pattern: '/a', acts: [{ part: 'x', share: 0.9 }] }] };
  expect(habits(said, parts).acts[0].share).toBe(0.9);
});

it('says which shares are more than the whole, counts them in proportion, and can scale them', () => {
  const notes = {
    routes: [
      {
        pattern: '/a',
        moves: [
          { to: '/b', share: 0.9 },
          { to: '/c', share: 0.6 },
        ],
      },
    ],
  };
  const { model, troubles } = modelOf(app(notes));
  expect(troubles).toEqual([expect.objectContaining({ route: '/a', sum: 1.5 })]);
  expect(model.routes[0].moves.map((m) => m.share)).toEqual([expect.closeTo(0.6, 9), expect.closeTo(0.4, 9)]);
  const mended = modelOf(app(scaled(notes, '/a')));
  expect(mended.troubles).toEqual([]);
  expect(mended.model.routes[0].moves.map((m) => m.share)).toEqual([expect.closeTo(0.6, 9), expect.closeTo(0.4, 9)]);
});

it('names moves to routes, acts on parts and habits of routes that the app doesn’t have', () => {
  const notes = {
    routes: [
      { pattern: '/a', moves: [{ to: '/gone', share: 0.2 }], acts: [{ part: 'nowhere', share: 0.1 }] },
      { pattern: '/lost' },
    ],
  };
  const { model, troubles } = modelOf(app(notes));
  expect(troubles.map((t) => t.message)).toEqual([
    expect.stringContaining('/lost'),
    expect.stringContaining('/gone'),
    expect.stringContaining('nowhere'),
  ]);
  expect(model.routes[0].moves).toEqual([]);
});

it('knows segments that only parts name, and which parts hang on what', () => {
  const parts = [
    part('x', 'a', { place: 'conditional', condition: { kind: 'segment', segment: 'signed in' }, share: 0.3 }),
    part('y', 'b', { place: 'conditional', condition: { kind: 'one of', group: 'pay' }, share: 0.6 }),
    part('z', 'c', { place: 'conditional', condition: { kind: 'media', maxWidth: 600 } }),
  ];
  const { model } = modelOf(app(undefined, parts));
  expect(model.segments).toEqual([{ name: 'signed in', share: 0.3 }]);
  expect(model.routes[0].conditions).toEqual([
    { part: 'x', share: 0.3, segment: 'signed in' },
    { part: 'y', share: 0.6, group: 'pay' },
  ]);
});

describe('editing', () => {
  it('keeps what was assumed of the other moves when one is said', () => {
    const notes = withMove({}, habits(), '/b', 0.4);
    expect(notes.routes).toEqual([
      {
        pattern: '/a',
        moves: [
          { to: '/b', share: 0.4 },
          { to: '/c', share: ASSUMED.goesOn / 2 },
        ],
      },
    ]);
    expect(withMove(notes, habits(notes), '/c', 0).routes![0].moves).toHaveLength(2);
  });

  it('changes an act and leaves what was said of others', () => {
    const notes = {
      routes: [
        {
          pattern: '/a',
          acts: [
            { part: 'x', share: 0.1 },
            { part: 'y', share: 0.2 },
          ],
        },
      ],
    };
    expect(withAct(notes, habits(), 'x', 0.5).routes![0].acts).toEqual([
      { part: 'y', share: 0.2 },
      { part: 'x', share: 0.5 },
    ]);
  });
});
