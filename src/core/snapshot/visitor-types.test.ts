import { VISITOR_NOTES } from './visitor-types.ts';

const whole = {
  segments: [{ name: 'signed in', share: 0.4 }],
  touch: 0.5,
  dataSaver: 0.1,
  returning: 0.3,
  deployed: 0.2,
  hesitation: { medianMs: 280, spread: 0.6 },
  routes: [
    {
      pattern: '/',
      dwell: { medianMs: 4000, spread: 0.5 },
      moves: [{ to: '/b', share: 0.5 }],
      acts: [{ part: 'x', share: 0.2, hesitation: { medianMs: 100, spread: 0 } }],
    },
  ],
};

it('takes notes as they are, and nothing at all', () => {
  expect(VISITOR_NOTES.check(whole, 'visitors')).toEqual(whole);
  expect(VISITOR_NOTES.check({}, 'visitors')).toEqual({});
  expect(VISITOR_NOTES.check({ hesitation: { medianMs: 5 } }, 'v').hesitation).toEqual({ medianMs: 5, spread: 0 });
});

it.each([
  ['v.touch', { touch: 1.2 }],
  ['v.returning', { returning: 'often' }],
  ['v.segments[0].name', { segments: [{ share: 0.1 }] }],
  ['v.segments[0].share', { segments: [{ name: 'a', share: -1 }] }],
  ['v.hesitation.medianMs', { hesitation: { medianMs: -4 } }],
  ['v.hesitation.spread', { hesitation: { medianMs: 4, spread: 9 } }],
  ['v.routes[0].pattern', { routes: [{}] }],
  [
    'v.routes[0].moves[1].share',
    {
      routes: [
        {
          pattern: '/',
          moves: [
            { to: '/', share: 0 },
            { to: '/', share: 2 },
          ],
        },
      ],
    },
  ],
  ['v.routes[0].acts[0].part', { routes: [{ pattern: '/', acts: [{ share: 1 }] }] }],
  ['v.routes', { routes: {} }],
])('names %s', (at, notes) => {
  expect(() => VISITOR_NOTES.check(notes, 'v')).toThrow(expect.objectContaining({ at }));
});
