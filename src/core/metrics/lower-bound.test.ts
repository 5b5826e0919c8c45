import { file, page, ROUND, requestRecord } from '../../test-support/programs.ts';
import { part, route, sketch } from '../../test-support/snapshots.ts';
import { BASELINE } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import { EVALUATION_RATE, REFERENCE_COSTS } from '../sim/conditions.ts';
import type { Timeline } from '../sim/types.ts';
import { filesBound, lowerBound } from './lower-bound.ts';

const landed = route('/', 'page', {
  layouts: ['frame'],
  document: { bytes: 4000, serverMs: 50 },
  parts: [
    part('form', 'form'),
    part('note', 'note', { interactive: false }),
    part('dialog', 'dialog', { place: 'action' }),
  ],
});
const app = sketch(
  {
    main: { imports: ['frame', 'page'], bytes: 3000 },
    frame: { bytes: 3000 },
    page: { imports: ['form', 'note', 'dialog', 'heavy'], bytes: 3000 },
    form: { bytes: 6000 },
    note: { bytes: 9000 },
    dialog: { bytes: 9000 },
    heavy: { bytes: 900_000 },
  },
  { routes: [landed] },
);

describe('lowerBound', () => {
  it('is connect, a round trip, and the larger of document and bare modules at line rate, plus the least evaluation', () => {
    // Browsers connect a little before the page counts.
    const connect = 2 * 100 - REFERENCE_COSTS.headStart + 100;
    const document = (4000 * 8) / 8000;
    const modules = ((1000 + 1000 + 1000 + 2000) * 8) / 8000;
    const least = 3000 * EVALUATION_RATE.likely;
    expect(lowerBound(app, landed, ROUND)).toBeCloseTo(
      connect + Math.max(50 + document, document + modules) + least,
      6,
    );
    const slow = { ...ROUND, link: { ...ROUND.link, downKbps: 80 } };
    expect(lowerBound(app, landed, slow)).toBeCloseTo(connect + (document + modules) * 100 + least, 6);
  });

  it('respects what is kept, the handshake and the device', () => {
    const base = lowerBound(app, landed, ROUND);
    const slow = { ...ROUND, link: { ...ROUND.link, downKbps: 80 } };
    expect(lowerBound(app, landed, { ...slow, cache: 'returning' })).toBeLessThan(lowerBound(app, landed, slow));
    expect(lowerBound(app, landed, { ...ROUND, link: { ...ROUND.link, tls: '1.2' } })).toBeCloseTo(base + 100, 6);
    expect(lowerBound(app, landed, { ...ROUND, link: { ...ROUND.link, protocol: 'h3' } })).toBeCloseTo(base - 100, 6);
    expect(lowerBound(app, landed, { ...ROUND, device: { ...ROUND.device, cpuFactor: 4 } })).toBeGreaterThan(base);
  });

  it('lies below the bound of the files, which counts what they hold', () => {
    const made = predict(app, BASELINE, '/', { ...ROUND, link: { ...ROUND.link, downKbps: 1000 } });
    expect(made.lowerBound).toBeLessThan(made.filesBound);
    expect(made.filesBound).toBeLessThan(made.reading.milestones.interactive);
    expect(made.filesBound).toBeGreaterThan((300_000 * 8) / 1000);
  });
});

describe('filesBound', () => {
  const chunk = { chunk: 0 };
  const program = page(
    [],
    [
      file('/a.js', { ...chunk, bytes: 40_000, cpuMs: 30, estimatedBytes: 100_000 }),
      file('/b.js', { ...chunk, bytes: 20_000, cpuMs: 7, estimatedBytes: 50_000 }),
      file('/c.css', { ...chunk, bytes: 10_000, type: 'style' }),
      file('/later.js', { ...chunk, bytes: 90_000, purpose: 'later' }),
      file('https://other.example/x.js', { bytes: 70_000, purpose: 'other script' }),
      file('/spare.js', { ...chunk, bytes: 80_000 }),
    ],
  );
  const over = (...resources: number[]) =>
    ({
      requests: resources.map((resource) =>
        requestRecord(0, 1, { resource, role: resource === 1 ? 'hinted' : resource === 5 ? 'in case' : 'needed' }),
      ),
    }) as unknown as Timeline;
  const start = 300 - REFERENCE_COSTS.headStart;

  it('counts the files that this landing needs, and the script that runs shortest', () => {
    const bytes = 5000 + 40_000 + 20_000 + 10_000;
    const shortest = 7 + 50_000 * EVALUATION_RATE.likely;
    expect(filesBound(program, over(0, 1, 2, 3, 4, 5), ROUND)).toBeCloseTo(start + bytes * 0.001 + shortest, 6);
  });

  it('without script is the document alone', () => {
    expect(filesBound(program, over(-1, 2), ROUND)).toBeCloseTo(start + 50 + 5, 6);
  });
});
