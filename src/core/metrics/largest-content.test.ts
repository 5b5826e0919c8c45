import fs from 'node:fs';
import path from 'node:path';
import { file, cause as noCause, page, requestRecord as request, screenPart } from '../../test-support/programs.ts';
import { parseLoadCase } from '../formats/load-case.ts';
import { simulate } from '../sim/simulate.ts';
import type { RequestRecord, Reveal, Timeline } from '../sim/types.ts';
import { largestContent } from './largest-content.ts';

const cause = noCause();
const shown = (part: number, at: number): Reveal => ({ part, state: 'shown', at, cause });

function timeline(reveals: Reveal[], requests: RequestRecord[] = []): Timeline {
  const at = { bodyInserted: 0, domInteractive: 0, domContentLoaded: 0, load: 0 };
  return { requests, tasks: [], reveals, steps: [], moments: { ...at, firstContent: 300, firstContentCause: cause } };
}

const hero = file('/hero.webp', { type: 'image', bytes: 60_000, name: 'hero' });
const face = file('/face.webp', { type: 'image', bytes: 20_000, name: 'face' });
const icon = file('/icon.png', { type: 'image', bytes: 900, name: 'icon' });
const image = (resource: number, inView = true) =>
  ({ tag: 'img', at: 100 + resource, resource, lazy: false, inView }) as const;

describe('largestContent', () => {
  const parts = [
    screenPart('shell', { renderMs: 2 }),
    screenPart('board', { renderMs: 30, fill: [1] }),
    screenPart('note', { renderMs: 5 }),
  ];

  it('is the heaviest image of the first screen, once it is there and its part shows', () => {
    const program = page([], [hero, face, icon], { parts });
    const arrived = (end: number) => [request(350, end, { resource: 1 })];
    const all = [shown(0, 400), shown(1, 700), shown(2, 900)];
    expect(largestContent(program, timeline(all, arrived(1200)), [0, 1, 2])).toMatchObject({ at: 1200, name: 'face' });
    expect(largestContent(program, timeline(all, arrived(500)), [0, 1, 2])).toMatchObject({ at: 700, name: 'face' });
    expect(largestContent(program, timeline([all[0]], arrived(500)), [0, 1, 2]).at).toBeNaN();
    expect(largestContent(program, timeline(all), [0, 1, 2]).at).toBeNaN();
    // Where its part isn't on this screen, it counts for nothing.
    expect(largestContent(program, timeline(all, arrived(1200)), [0, 2])).toMatchObject({ at: 900, name: 'note' });
  });

  it('takes images of the markup that are in view, from first content on, and no icons', () => {
    const drawn = [screenPart('shell', { renderMs: 2 })];
    const of = (resources: number[], inView: boolean, end: number) => {
      const program = page(
        resources.map((r) => image(r, inView)),
        [hero, face, icon],
        { parts: drawn },
      );
      const requests = resources.map((resource) => request(100, end, { resource }));
      return largestContent(program, timeline([shown(0, 400)], requests), [0]);
    };
    expect(of([0, 1], true, 900)).toMatchObject({ at: 900, name: 'hero' });
    expect(of([0, 1], true, 200)).toMatchObject({ at: 300, name: 'hero' });
    expect(of([0], false, 900)).toMatchObject({ at: 400, name: 'shell' });
    expect(of([2], true, 900)).toMatchObject({ at: 400, name: 'shell' });
  });

  it('is otherwise what takes most to draw, of several the last; first content where nothing is known', () => {
    const plain = [...parts.slice(0, 1), screenPart('board', { renderMs: 30 }), screenPart('map', { renderMs: 30 })];
    const program = page([], [], { parts: plain });
    const all = [shown(0, 950), shown(1, 700), shown(2, 900)];
    expect(largestContent(program, timeline(all), [0, 1, 2])).toMatchObject({ at: 900, name: 'map' });
    expect(largestContent(program, timeline(all), [0, 1])).toMatchObject({ at: 700, name: 'board' });
    expect(largestContent(program, timeline(all.slice(0, 2)), [0, 1, 2]).at).toBeNaN();
    expect(largestContent(program, timeline([]), [])).toMatchObject({ at: 300, name: 'first content' });
  });

  it('is no chart, map or editor, however long that takes to draw', () => {
    const plain = [screenPart('page', { renderMs: 12 }), screenPart('map', { renderMs: 50, tabledMs: 43 })];
    const program = page([], [], { parts: plain });
    expect(largestContent(program, timeline([shown(0, 700), shown(1, 900)]), [0, 1])).toMatchObject({ at: 700 });
    const seen = {
      ...program,
      parts: [
        { ...plain[0], showsMs: 2 },
        { ...plain[1], showsMs: 3 },
      ],
    };
    expect(largestContent(seen, timeline([shown(0, 700), shown(1, 900)]), [0, 1])).toMatchObject({ at: 900 });
    const large = { ...program, parts: [plain[0], { ...plain[1], renderMs: 60 }] };
    expect(largestContent(large, timeline([shown(0, 700), shown(1, 900)]), [0, 1])).toMatchObject({ at: 900 });
  });

  it('is nothing of what stands around the page, unless that is all there is', () => {
    const program = page([], [], {
      parts: [screenPart('shell', { renderMs: 30 }), screenPart('page', { renderMs: 2 })],
    });
    expect(largestContent(program, timeline([shown(0, 700), shown(1, 900)]), [0, 1])).toMatchObject({ at: 900 });
    expect(largestContent(program, timeline([shown(0, 700)]), [0])).toMatchObject({ at: 700 });
  });

  it('lies where browsers report it, in recorded loads of which it is known what is largest', () => {
    const folder = path.resolve('fidelity/recordings');
    const off: number[] = [];
    for (const name of fs.readdirSync(folder)) {
      const recorded = JSON.parse(fs.readFileSync(path.join(folder, name), 'utf8'));
      const { program, conditions, from } = parseLoadCase(recorded);
      const isDrawn = (p: (typeof program.parts)[number]) => p.drawnBy === 'script';
      const hasImages = program.resources.some((r) => r.type === 'image');
      if (from || program.interactions?.length || program.steps.length > 0 || hasImages) continue;
      // Of several texts nobody knows which is largest; of one that comes by script, it is that one.
      if (program.parts.filter(isDrawn).length !== 1) continue;
      const at = program.parts.findIndex(isDrawn);
      const [truth] = recorded.measured.milestones.largestContentfulPaint;
      off.push(Math.abs(largestContent(program, simulate(program, conditions), [at]).at / truth - 1));
    }
    off.sort((a, b) => a - b);
    expect(off.length).toBeGreaterThan(30);
    expect(off[off.length >> 1]).toBeLessThan(0.02);
    expect(off[Math.floor(off.length * 0.9)]).toBeLessThan(0.1);
  });
});
