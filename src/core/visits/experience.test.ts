import { cause, file, page, requestRecord, screenPart } from '../../test-support/programs.ts';
import type { CompiledStep, Interaction, VisitDocument } from '../load/types.ts';
import type { VisitTimeline } from '../sim/simulate-visit.ts';
import type { Reveal, RevealState, Timeline } from '../sim/types.ts';
import type { Moment } from '../sim/visitor.ts';
import { experienced, FLASH_MS, sumsOf } from './experience.ts';

const PARTS = ['page', 'dialog', 'offer', 'small'];

/** An act that brings the dialog; conditions 1 and 2 bring the offer and what is only on small screens. */
const interaction = (more: Partial<Interaction> = {}): Interaction => ({
  ...{ id: 'open', kind: 'act', name: 'open', hides: [], shows: [1], until: 'shown' },
  ...{ first: [], approach: [], act: [] },
  ...more,
});

function documentOf(interactions: Interaction[], more: Partial<VisitDocument> = {}): VisitDocument {
  const parts = PARTS.map((id) => screenPart(id, id === 'page' ? {} : { place: 'later' }));
  return {
    program: { ...page([], [file('/a.js')]), parts, interactions },
    ...{ begins: 'landing', awayMs: 0, main: 0, conditions: [], steps: [] },
    ...more,
  };
}

const reveal = (part: number, state: RevealState, at: number): Reveal => ({ part, state, at, cause: cause() });
const moment = (more: Partial<Moment> = {}): Moment => ({
  ...{ page: 0, step: -1, interaction: -1, approach: Number.NaN, act: 0, taken: 0, over: 500 },
  ...more,
});
const LANDED = [reveal(0, 'shown', 400), reveal(0, 'answering', 500)];
const OPENED = moment({ step: 0, interaction: 0, act: 1000, taken: 1000, over: 1300 });

/** A visit of one page as it was played. */
function seen(
  reveals: Reveal[],
  moments: Moment[],
  document = documentOf([interaction()]),
  requests: Timeline['requests'] = [],
) {
  const timeline = { requests, reveals } as unknown as Timeline;
  const visit: VisitTimeline = { pages: [{ startedAt: 0, timeline }], moments };
  return experienced({ documents: [document] }, visit);
}

describe('what a person sees of a moment', () => {
  it('counts from the act, and is waited for until it shows', () => {
    const [landing, act] = seen(
      [...LANDED, reveal(1, 'shown', 1300), reveal(1, 'answering', 1350)],
      [moment(), OPENED],
    );
    expect(landing).toMatchObject({
      kind: 'landing',
      name: '/',
      act: 0,
      shown: 400,
      answering: 500,
      wait: 400,
      lead: 0,
    });
    expect(act).toMatchObject({ kind: 'act', name: 'open', shown: 300, answering: 350, wait: 300, complete: 300 });
    expect(act.parts).toEqual([{ name: 'dialog', shown: 300 }]);
  });

  it('is over at once where it was there before the act, unless it has left since', () => {
    const known = [...LANDED, reveal(1, 'shown', 700), reveal(1, 'answering', 700)];
    expect(seen(known, [moment(), OPENED])[1]).toMatchObject({ shown: 0, answering: 0, wait: 0 });
    const left = [...known, reveal(1, 'gone', 800), reveal(1, 'shown', 1200)];
    expect(seen(left, [moment(), OPENED])[1]).toMatchObject({ shown: 200 });
    // Gone and back again before the act.
    const back = [...known, reveal(1, 'gone', 800), reveal(1, 'shown', 800)];
    expect(seen(back, [moment(), OPENED])[1]).toMatchObject({ shown: 0 });
    // What the act itself takes off the screen comes anew.
    const moves = documentOf([interaction({ kind: 'move', hides: [1] })]);
    expect(seen([...known, reveal(1, 'shown', 1250)], [moment(), OPENED], moves)[1].shown).toBe(250);
  });

  it('is waited for until it answers where it shows already', () => {
    const answers = documentOf([interaction({ until: 'answering' })]);
    const reveals = [...LANDED, reveal(1, 'shown', 700), reveal(1, 'answering', 1400)];
    expect(seen(reveals, [moment(), { ...OPENED, over: 1400 }], answers)[1]).toMatchObject({ shown: 0, wait: 400 });
  });

  it('has a stand-in that flashes where it stands for less than people see', () => {
    const stands = (until: number, state: RevealState = 'shown') =>
      seen(
        [...LANDED, reveal(1, 'stand-in', 1050), reveal(1, state, until)],
        [moment(), { ...OPENED, over: until }],
      )[1];
    expect(stands(1050 + FLASH_MS - 1).standIn).toEqual({ from: 50, to: 49 + FLASH_MS, flash: true });
    expect(stands(1050 + FLASH_MS).standIn).toMatchObject({ flash: false });
    expect(stands(1400, 'failed')).toMatchObject({ standIn: { from: 50, to: 400 }, failed: 'told' });
    const never = seen([...LANDED, reveal(1, 'stand-in', 1050)], [moment(), { ...OPENED, over: 1600 }])[1];
    expect(never).toMatchObject({ standIn: { from: 50, to: 600 }, failed: 'silent' });
    expect(seen(LANDED, [moment(), { ...OPENED, over: Number.NaN }])[1].failed).toBeNull();
    expect(seen([], [moment()])[0].failed).toBeNull();
  });

  it('is complete with the images and data of all that it brings, and never with what is held back', () => {
    const whole = documentOf([interaction({ shows: [1, 2] })]);
    whole.program.parts[2].fill = [0];
    const reveals = [...LANDED, reveal(1, 'shown', 1200), reveal(2, 'shown', 1250), reveal(2, 'filled', 1900)];
    expect(seen(reveals, [moment(), OPENED], whole)[1]).toMatchObject({ shown: 200, complete: 900 });
    // What leaves before it was complete counts until then.
    const gone = [...reveals.slice(0, -1), reveal(2, 'gone', 1400), reveal(2, 'filled', 2000)];
    expect(seen(gone, [moment(), OPENED], whole)[1].complete).toBe(250);
    const failing = [...reveals.slice(0, -1), reveal(2, 'failed', 1400)];
    expect(seen(failing, [moment(), OPENED], whole)[1].complete).toBeNaN();
    whole.program.parts[2].held = { on: 'idle' };
    expect(seen(reveals, [moment(), OPENED], whole)[1].complete).toBeNaN();
  });

  it('begins anew with what leaves as the page takes the act', () => {
    const late = { ...OPENED, taken: 1100 };
    const whole = documentOf([interaction({ kind: 'move', hides: [1] })]);
    const reveals = [...LANDED, reveal(1, 'shown', 600), reveal(1, 'gone', 1100), reveal(1, 'shown', 1280)];
    expect(seen(reveals, [moment(), late], whole)[1]).toMatchObject({ taken: 100, shown: 280, complete: 280 });
  });

  it('brings what stands under conditions that hold from then on, and orders parts as they came', () => {
    const all = [interaction(), interaction({ kind: 'condition', shows: [2] }), interaction({ shows: [3] })];
    const step: CompiledStep = { ...{ index: 0, does: 'interaction', interaction: 0 }, conditions: [1] } as never;
    const reveals = [...LANDED, reveal(2, 'shown', 1100), reveal(3, 'shown', 1150), reveal(1, 'shown', 1200)];
    const names = (steps: CompiledStep[]) =>
      seen(reveals, [moment(), OPENED], documentOf(all, { steps }))[1].parts.map((p) => p.name);
    expect(names([step])).toEqual(['offer', 'dialog']);
    expect(names([{ ...step, index: 1 }])).toEqual(['dialog']);
    expect(names([{ ...step, interaction: 2 }])).toEqual(['dialog']);
    const atLanding = documentOf(all, { conditions: [1] });
    expect(seen([...LANDED, reveal(2, 'shown', 450)], [moment()], atLanding)[0].parts.map((p) => p.name)).toEqual([
      'page',
      'offer',
    ]);
  });

  it('ends where the page takes the next act, though what came late is still its own until it was over', () => {
    const next = moment({ step: 1, interaction: 0, act: 2000, taken: 2100, over: 2300 });
    const at = (time: number, over: number) =>
      seen([...LANDED, reveal(1, 'shown', time)], [moment(), { ...OPENED, over }, next])[1].shown;
    expect(at(2100, 1300)).toBe(1100);
    expect(at(2101, 1300)).toBeNaN();
    expect(at(2200, 2200)).toBe(1200);
  });

  it('is another document, or nothing that anybody waits for', () => {
    const link = documentOf([], { begins: 'link' });
    expect(seen(LANDED, [moment()], link)[0].kind).toBe('document');
    expect(seen(LANDED, [moment({ act: 700, over: 700 })])[0].kind).toBe('other');
  });
});

describe('the requests of a moment', () => {
  const at = (discovered: number) => requestRecord(discovered, discovered + 50);
  const requests = [at(0), at(899), at(900), at(1000), at(1899), at(1900), at(2000)];
  const of = (moments: Moment[]) =>
    seen(LANDED, moments, documentOf([interaction()]), requests).map((e) => [e.requests, e.bytes, e.lead]);
  const next = moment({ step: 1, interaction: 0, act: 2000, taken: 2000, over: 2300 });

  it('are those from its approach to the next one', () => {
    expect(of([moment(), { ...OPENED, approach: 900 }, { ...next, approach: 1900 }])).toEqual([
      [[0, 1], 2000, 0],
      [[2, 3, 4], 3000, 100],
      [[5, 6], 2000, 100],
    ]);
  });

  it('begin with the act where nobody approached', () => {
    expect(of([moment(), OPENED, next]).map(([own]) => own)).toEqual([[0, 1, 2], [3, 4, 5], [6]]);
  });

  it('of a landing begin with it: an approach was on the page before', () => {
    expect(of([moment({ approach: -300 })])[0]).toEqual([[0, 1, 2, 3, 4, 5, 6], 7000, 300]);
  });
});

describe('sums', () => {
  it('are of waits that end, after the landing, with all that travelled and what nobody used', () => {
    const timeline = {
      requests: [
        requestRecord(0, 10),
        requestRecord(0, 10, { role: 'in case', bytes: 300 }),
        requestRecord(0, 10, { role: 'wasted', bytes: 40 }),
      ],
      reveals: [...LANDED, reveal(1, 'shown', 1300)],
    } as unknown as Timeline;
    const never = { ...OPENED, step: 1, act: 2000, taken: 2000, over: 2500, interaction: 1 };
    const moments = [moment(), OPENED, never, moment({ step: 2, act: 3000, over: 3000 })];
    const document = documentOf([interaction(), interaction({ shows: [2] })]);
    const visit: VisitTimeline = { pages: [{ startedAt: 0, timeline }], moments };
    const experiences = experienced({ documents: [document] }, visit);
    expect(sumsOf(experiences, visit)).toEqual({ waits: 300, bytes: 1340, unused: 340, failures: 1 });
  });
});
