import { TRIGGER } from '../../core/vocabulary/triggers.ts';
import { ASKED_MOMENTS, momentFrom, TRIGGERS } from './triggers.ts';

const asked = (on: string) => ASKED_MOMENTS.find((m) => m.on === on)!;

describe('moments of a fetch', () => {
  it('are all offered: chosen at once, or once something is said of them', () => {
    const kinds = [...TRIGGERS.map((t) => t.on), ...ASKED_MOMENTS.map((m) => m.on)];
    expect(new Set(kinds).size).toBe(kinds.length);
    for (const trigger of TRIGGERS) expect(TRIGGER.check(trigger, '')).toEqual(trigger);
    expect(kinds.length).toBe(10);
  });

  it.each([
    ['after', { ms: ' 400 ' }, { on: 'after', ms: 400 }],
    ['event', { name: 'cart opened' }, { on: 'event', name: 'cart opened' }],
    ['media', { minWidth: '900', maxWidth: '' }, { on: 'media', minWidth: 900 }],
    ['media', { maxWidth: '600' }, { on: 'media', maxWidth: 600 }],
    ['answer', { of: 'next sailings' }, { on: 'answer', of: 'next sailings' }],
  ])('are made of what is written: %s %j', (on, written, wanted) => {
    expect(momentFrom(asked(on), written as Record<string, string>)).toEqual(wanted);
  });

  it.each([
    ['after', {}, 'Say ms after its landing or move.'],
    ['after', { ms: 'soon' }, expect.stringMatching(/^“ms after its landing or move” must be a number/)],
    ['after', { ms: '-1' }, expect.any(String)],
    ['event', { name: '  ' }, 'Say the event’s name.'],
    ['media', {}, 'Say one of these: from, in px; up to, in px.'],
    ['media', { minWidth: 'wide' }, expect.any(String)],
  ])('that are not understood say why: %s %j', (on, written, wanted) => {
    expect(momentFrom(asked(on), written as Record<string, string>)).toEqual(wanted);
  });
});
