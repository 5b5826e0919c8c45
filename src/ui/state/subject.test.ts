import type { AppView } from '../../worker/views.ts';
import { fitOf, type Subject } from './subject.ts';

const app = { name: 'a' } as AppView;
const subject: Subject = { app, planId: 'p', decisions: [], route: '/', conditions: 'x' };

describe('an answer', () => {
  it('fits what it is about, all of it', () => {
    expect(fitOf(subject, { ...subject })).toBe('fits');
    expect(fitOf(subject, { ...subject, decisions: [] })).toBe('decided since');
  });

  it.each<[string, Partial<Subject>]>([
    ['app', { app: { name: 'a' } as AppView }],
    ['plan', { planId: null }],
    ['route', { route: '/b' }],
    ['conditions', { conditions: 'y' }],
  ])('of another %s is not shown', (_, other) => {
    expect(fitOf(subject, { ...subject, ...other })).toBe('other');
  });

  it('may hang on fewer sides', () => {
    expect(fitOf(subject, { ...subject, route: '/b' }, ['conditions'])).toBe('fits');
    expect(fitOf(subject, { ...subject, conditions: 'y' }, ['conditions'])).toBe('other');
    expect(fitOf(null, subject)).toBe('other');
    expect(fitOf({ ...subject, app: null }, { ...subject, app: null })).toBe('other');
  });
});
