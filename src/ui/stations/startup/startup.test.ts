import { sourceRequest } from '../../../core/metrics/behind.ts';
import { BASELINE } from '../../../core/plan/types.ts';
import { predict } from '../../../core/predict/predict.ts';
import { DEFAULT_CONDITIONS } from '../../../core/sim/conditions.ts';
import { readSource } from '../../../reader/read-source.ts';
import { SAMPLE } from '../../../test-support/folders.ts';
import type { LandingView } from '../../../worker/views.ts';
import { stripRows } from '../../frame/strip-rows.ts';
import { linkUse } from './link-use.ts';
import { ghostsOf, joinFlags, layRows, litBy, placeFlags, requestsOf, shares } from './rows.ts';

const { snapshot } = readSource(SAMPLE);
const made = predict(snapshot, BASELINE, '/crew/duty/manifest', DEFAULT_CONDITIONS);
const { requests } = made.timeline;
const down = DEFAULT_CONDITIONS.link.downKbps;

describe('the waterfall of the sample’s longest staircase', () => {
  it('has every request once, in hops from the top, without overlap', () => {
    const { rows, hops, height } = layRows(requests);
    expect(rows.map((r) => r.request).sort((a, b) => a - b)).toEqual(requests.map((_, i) => i));
    expect(hops.map((h) => h.hop)).toEqual([0, 1, 2, 3, 4, 5, 6]);
    for (let i = 1; i < rows.length; i++) expect(rows[i].y - rows[i - 1].y).toBeGreaterThanOrEqual(25);
    for (let i = 1; i < hops.length; i++) expect(hops[i].from).toBeGreaterThan(hops[i - 1].to);
    expect(height).toBeGreaterThan(rows.at(-1)!.y);
  });

  it('leads each request back to the one that caused it, and at last to the document', () => {
    for (const [i, r] of requests.entries()) {
      const source = sourceRequest(made.timeline, r.cause);
      if (i === 0) expect(source).toBe(-1);
      else expect(requests[source].hop).toBe(r.hop - 1);
    }
  });

  it('lights the requests along the chain', () => {
    const lit = [...litBy(made.chain).requests].map((r) => requests[r].name);
    expect(lit).toEqual(
      expect.arrayContaining(['document', 'entry', 'crew-area', 'duty-section', 'manifest-page', 'manifest-grid']),
    );
  });

  it('draws bars no thicker than the link, which together hold all the bytes', () => {
    const until = Math.max(...requests.map((r) => r.end));
    for (const r of requests) {
      const pieces = shares(r, down);
      for (const p of pieces) {
        expect(p.share).toBeGreaterThan(0);
        expect(p.share).toBeLessThanOrEqual(1);
        expect(p.to).toBeGreaterThanOrEqual(p.from);
      }
    }
    const bins = linkUse(requests, down, until, 100);
    const drawn = bins.reduce((sum, b) => sum + b.shares.reduce((s, x) => s + x.share, 0) * (b.to - b.from), 0);
    const carried = requests.flatMap((r) => r.pieces).reduce((sum, p) => sum + p.bytes, 0);
    expect(drawn / ((carried * 8) / down)).toBeCloseTo(1, 1);
    for (const b of bins) expect(b.shares.reduce((s, x) => s + x.share, 0)).toBeLessThanOrEqual(1.02);
  });
});

describe('joinFlags', () => {
  it('makes one flag of milestones that are written with the same time, but of no others', () => {
    const flags = [
      { name: 'first content', at: 3478 },
      { name: 'largest content', at: 3481.4 },
      { name: 'interactive', at: 3480, strong: true as const },
      { name: 'first screen complete', at: 3691 },
      { name: 'baseline: interactive', at: 3480, before: true as const },
    ];
    expect(joinFlags(flags)).toEqual([
      { name: 'first content · largest content · interactive', at: 3478, strong: true },
      { name: 'first screen complete', at: 3691 },
      { name: 'baseline: interactive', at: 3480, before: true },
    ]);
  });
});

describe('placeFlags', () => {
  it('never lets one flag cover another, and keeps them on the page', () => {
    for (let seed = 1; seed < 60; seed++) {
      const flags = [0, 1, 2, 3].map((i) => ({
        name: `f${i}`,
        at: Math.abs(Math.sin(seed * (i + 3))) * 700 + 200,
        width: 90 + i * 20,
      }));
      const placed = placeFlags(flags, (ms) => ms, 900);
      for (const a of placed) {
        expect(a.x).toBeGreaterThanOrEqual(0);
        expect(a.x + a.width).toBeLessThanOrEqual(900);
        for (const b of placed) {
          if (a !== b && a.level === b.level) expect(a.x + a.width <= b.x || b.x + b.width <= a.x).toBe(true);
        }
      }
    }
  });
});

describe('stripRows', () => {
  it('lays the plan’s files over the same ones of the baseline', () => {
    const lean = predict(
      snapshot,
      { ...BASELINE, decisions: [{ kind: 'join', import: 'src/crew/manifest-page.tsx::./manifest-grid' }] },
      '/crew/duty/manifest',
      DEFAULT_CONDITIONS,
    );
    const { rows, of } = stripRows(lean.timeline.requests, requests, 50);
    expect(of).toBe(rows.length);
    expect(rows.find((r) => r.address === 'script entry')).toMatchObject({ now: { hop: 1 }, ghost: { hop: 1 } });
    expect(rows.find((r) => r.address === 'script manifest-grid')).toMatchObject({ now: null, ghost: { hop: 5 } });
    expect(stripRows(lean.timeline.requests, requests, 5)).toMatchObject({ rows: { length: 5 }, of });
  });
});

describe('what is drawn of a landing', () => {
  const view = { ...made, parts: made.program.parts, ...made.reading } as unknown as LandingView;

  it('can be only what one part waits for, with what asked for that', () => {
    const grid = requestsOf(view, 'grid');
    const names = [...grid].map((i) => requests[i].name);
    expect(names).toContain('document');
    expect(names).toContain('manifest');
    expect(grid.size).toBeLessThan(requests.length);
    for (const i of grid) {
      const source = sourceRequest(made.timeline, requests[i].cause);
      expect(source < 0 || grid.has(source)).toBe(true);
    }
    const { rows } = layRows(requests, (i) => grid.has(i));
    expect(rows.map((r) => r.request).sort((a, b) => a - b)).toEqual([...grid].sort((a, b) => a - b));
    expect(requestsOf(view, 'no such part').size).toBe(0);
  });

  it('has the baseline behind it only where they differ', () => {
    expect(ghostsOf(view, view)).toBeNull();
    expect(ghostsOf(view, null)).toBeNull();
    const slower = { ...view, milestones: { ...view.milestones, interactive: view.milestones.interactive + 500 } };
    const ghosts = ghostsOf(view, slower)!;
    expect(ghosts.interactive).toBe(slower.milestones.interactive);
    expect(ghosts.of.map((g) => g?.name)).toEqual(requests.map((r) => r.name));
  });
});
