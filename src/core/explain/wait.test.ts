import { ROUND } from '../../test-support/programs.ts';
import { part, route, sketch } from '../../test-support/snapshots.ts';
import { BASELINE, type Decision } from '../plan/types.ts';
import { waitFor } from './wait.ts';

const app = sketch(
  { main: { imports: ['~dialog', '~first'] }, dialog: { bytes: 60_000 }, first: {}, lost: {} },
  {
    routes: [route('/', 'main', { parts: [part('d', 'dialog', { place: 'action' }), part('f', 'first')] })],
  },
);
const wait = (target: string, ...decisions: Decision[]) =>
  waitFor(app, { ...BASELINE, decisions }, '/', target, ROUND)?.wait ?? null;

describe('the wait after an act', () => {
  it('is at least the round trip and the transfer, and not much more', () => {
    const { gzip } = app.modules[1].bytes;
    const least = ROUND.link.rttMs + (gzip * 8) / ROUND.link.downKbps;
    expect(wait('dialog')).toBeGreaterThan(least);
    expect(wait('dialog')).toBeLessThan(least + 250);
  });

  it('counts styles that the code needs', () => {
    const styled = sketch(
      {
        main: { imports: ['~dialog'] },
        dialog: { imports: ['dialog.css'] },
        'dialog.css': { kind: 'style', bytes: 90_000 },
      },
      { routes: [route('/', 'main', { parts: [part('d', 'dialog', { place: 'action' })] })] },
    );
    expect(waitFor(styled, BASELINE, '/', 'dialog', ROUND)!.wait).toBeGreaterThan(ROUND.link.rttMs + 20);
  });

  it('is nearly nothing when the code was prefetched', () => {
    const target = { kind: 'split point' as const, module: 'dialog' };
    const hint: Decision = { kind: 'hint', hint: { kind: 'prefetch', place: 'markup', target, routes: [] } };
    expect(wait('dialog', hint)).toBeLessThan(60);
  });

  it('is until it has run, for code that no part stands for', () => {
    const tool = sketch(
      { main: { imports: ['~tool'], context: 'handler' }, tool: { bytes: 60_000 } },
      { routes: [route('/', 'main', { parts: [] })] },
    );
    const found = waitFor(tool, BASELINE, '/', 'tool', ROUND)!;
    const least = ROUND.link.rttMs + (tool.modules[1].bytes.gzip * 8) / ROUND.link.downKbps;
    expect(found.until).toBe('run');
    expect(found.complete).toBe(found.wait);
    expect(found.wait).toBeGreaterThan(least);
    expect(found.wait).toBeLessThan(least + 250);
    expect(waitFor(tool, BASELINE, '/nowhere', 'tool', ROUND)).toBeNull();
  });

  it('is not there for what comes by itself, or not at all', () => {
    expect(wait('first')).toBeNull();
    expect(wait('dialog', { kind: 'trigger', splitPoint: 'dialog', fetch: { on: 'idle' } })).toBeNull();
    expect(wait('lost')).toBeNull();
  });
});
