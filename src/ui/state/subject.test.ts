import type { AppView } from '../../worker/views.ts';
import { continues, fitOf, type Subject } from './subject.ts';

const app = { name: 'a' } as AppView;
const subject: Subject = { app, planId: 'p', decisions: [], route: '/', conditions: 'x' };

describe('an answer', () => {
  it('fits what it is about, all of it', () => {
    expect(fitOf(subject, { ...subject })).toBe('fits');
    expect(fitOf(subject, { ...subject, decisions: [] })).toBe('changed since');
  });

  it.each<[string, Partial<Subject>]>([
    ['app', { app: { name: 'a' } as AppView }],
    ['plan', { planId: null }],
    ['route', { route: '/b' }],
    ['conditions', { conditions: 'y' }],
  ])('of another %s is not shown', (_, other) => {
    expect(fitOf(subject, { ...subject, ...other })).toBe('other');
  });

  it('stays while the same folder is read anew', () => {
    const [second, third, other] = [{ name: 'a' }, { name: 'a' }, { name: 'a' }] as AppView[];
    continues(app, second);
    continues(second, third);
    expect(fitOf(subject, { ...subject, app: third })).toBe('changed since');
    expect(fitOf({ ...subject, app: second }, { ...subject, app: third })).toBe('changed since');
    expect(fitOf({ ...subject, app: third }, { ...subject, app: third })).toBe('fits');
    expect(fitOf(subject, { ...subject, app: other })).toBe('other');
    expect(fitOf(subject, { ...subject, app: third, route: '/b' })).toBe('other');
  });

  it('may hang on fewer sides', () => {
    expect(fitOf(subject, { ...subject, route: '/b' }, ['conditions'])).toBe('fits');
    expect(fitOf(subject, { ...subject, conditions: 'y' }, ['conditions'])).toBe('other');
    expect(fitOf(null, subject)).toBe('other');
    expect(fitOf({ ...subject, app: null }, { ...subject, app: null })).toBe('other');
  });
});
