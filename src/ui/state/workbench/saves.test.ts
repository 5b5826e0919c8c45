import fc from 'fast-check';
import { after, overall, type PlanSave, type SaveEvent, type Saves } from './saves.ts';

const NOTHING: Saves = new Map();
const run = (...events: SaveEvent[]) => events.reduce((saves, event) => after(saves, 'a', event), NOTHING);

describe('saving a plan', () => {
  it.each<[SaveEvent[], PlanSave | undefined]>([
    [['decided'], 'unsaved'],
    [['decided', 'sent'], 'sending'],
    [['decided', 'sent', 'confirmed'], undefined],
    [['decided', 'sent', 'decided', 'confirmed'], 'unsaved'],
    [['decided', 'sent', 'decided', 'confirmed', 'sent', 'confirmed'], undefined],
    [['decided', 'sent', 'failed'], 'failed'],
    [['decided', 'sent', 'failed', 'sent', 'confirmed'], undefined],
    [['decided', 'sent', 'refused'], 'conflict'],
    [['decided', 'sent', 'refused', 'decided'], 'conflict'],
    [['decided', 'sent', 'refused', 'settled'], undefined],
  ])('%j leads to %s', (events, state) => {
    expect(run(...events).get('a')).toBe(state);
  });

  it('tells the worst of all plans', () => {
    expect(overall(NOTHING)).toBe('saved');
    expect(overall(new Map([['a', 'unsaved']]))).toBe('saving');
    expect(
      overall(
        new Map([
          ['a', 'unsaved'],
          ['b', 'failed'],
        ]),
      ),
    ).toBe('failed');
    expect(overall(new Map([['a', 'conflict']]))).toBe('failed');
  });

  it('never counts as saved what was decided after it was sent last, unless the person let go of it', () => {
    const anyEvents = fc.array(
      fc.constantFrom<SaveEvent>('decided', 'sent', 'confirmed', 'failed', 'refused', 'settled'),
      { maxLength: 20 },
    );
    fc.assert(
      fc.property(anyEvents, (events) => {
        let saves = NOTHING;
        // What a plan holds that no server has: decided, and not sent since or not confirmed since that.
        let open = false;
        let sent = false;
        for (const event of events) {
          if ((event === 'confirmed' || event === 'failed') && !sent) continue;
          saves = after(saves, 'a', event);
          if (event === 'decided') open = true;
          if (event === 'sent') [open, sent] = [false, true];
          if (event === 'failed' || event === 'refused') [open, sent] = [true, false];
          if (event === 'confirmed') sent = false;
          if (event === 'settled') [open, sent] = [false, false];
          if (open) expect(overall(saves)).not.toBe('saved');
        }
      }),
    );
  });
});
