import { seeded } from '../sim/random.ts';
import { Frontier, type FrontierPoint } from './frontier.ts';

type Point = FrontierPoint<number>;

/** Slow, by the definition: of all that were told those that nothing else beats, the first of equals. */
function unbeaten(told: readonly Point[]): Point[] {
  const beats = (a: Point, b: Point) =>
    a.weight <= b.weight &&
    a.objective <= b.objective &&
    (a.weight < b.weight || a.objective < b.objective || told.indexOf(a) < told.indexOf(b));
  return told.filter((p) => !told.some((other) => other !== p && beats(other, p))).sort((a, b) => a.weight - b.weight);
}

describe('the sets that no other one beats', () => {
  it('are those of all that were told, in any order, with many that come to the same', () => {
    const rand = seeded(11);
    for (let run = 0; run < 300; run++) {
      const frontier = new Frontier<number>();
      const told: Point[] = [];
      for (let n = 0; n < 1 + rand() * 14; n++) {
        const point = { set: [n], weight: Math.floor(rand() * 6), objective: Math.floor(rand() * 6), measured: n };
        told.push(point);
        frontier.note(point);
        expect(frontier.points).toEqual(unbeaten(told));
      }
      for (let weight = -1; weight < 7; weight++)
        expect(frontier.within(weight)).toBe(unbeaten(told).findLast((p) => p.weight <= weight) ?? null);
    }
  });
});
