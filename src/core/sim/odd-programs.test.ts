import { file, page, ROUND } from '../../test-support/programs.ts';
import type { LoadProgram, MarkupItem } from '../load/types.ts';
import type { Conditions } from './conditions.ts';
import { seeded } from './random.ts';
import { simulate } from './simulate.ts';

const started = (resources: ReturnType<typeof file>[]) =>
  page(
    resources.map((_, group) => ({ at: 100 + group, tag: 'script', group, mode: 'async' })),
    resources,
  );

describe('programs that are no usual pages', () => {
  it.each([0, 1, 2_000_000_000])('with a file of %d bytes end with numbers', (bytes) => {
    const { requests, stopped } = simulate(started([file('/a.js', { bytes })]), ROUND);
    expect(stopped).toBeUndefined();
    expect(requests[1].end).toBeGreaterThan(requests[1].sent);
    expect(requests[1].bytes).toBeCloseTo(bytes, 0);
  });

  it('with thousands of requests answer all of them', () => {
    const resources = Array.from({ length: 3000 }, (_, i) => file(`/${i}.js`, { bytes: 400 }));
    const { requests } = simulate(started(resources), ROUND);
    expect(requests).toHaveLength(3001);
    for (const r of requests) expect(r.end).toBeGreaterThan(0);
  });

  it('whose files import each other in a circle evaluate each once', () => {
    const program = page(
      [{ at: 100, tag: 'script', group: 0, mode: 'module' }],
      [file('/a.js', { imports: [1] }), file('/b.js', { imports: [0] })],
      { groups: [{ name: 'circle', resources: [1, 0], after: [], loader: 'discovered' }] },
    );
    const { tasks } = simulate(program, ROUND);
    expect(tasks.filter((t) => t.kind === 'evaluate').map((t) => t.name)).toEqual(['/b.js', '/a.js']);
  });

  it('whose groups wait for each other never show, but end', () => {
    const groups = [0, 1].map((r) => ({ name: `${r}`, resources: [r], after: [1 - r], loader: 'listed' as const }));
    const { moments, requests } = simulate({ ...started([file('/a.js'), file('/b.js')]), groups }, ROUND);
    expect(requests).toHaveLength(3);
    expect(moments.firstContent).toBeNaN();
  });

  it('over a round trip of a minute end as well', () => {
    const slow = { ...ROUND, link: { ...ROUND.link, rttMs: 60_000 } };
    expect(simulate(started([file('/a.js')]), slow).requests[1].end).toBeGreaterThan(240_000);
  });
});

/** A page of scripts of all kinds that ask for others, drawn from a seed. */
function anyPage(seed: number): LoadProgram {
  const next = seeded(seed);
  const count = 2 + Math.floor(next() * 8);
  const modes = ['async', 'defer', 'module'] as const;
  const resources = Array.from({ length: count }, (_, i) =>
    file(`/${i}.js`, {
      bytes: Math.round(500 + next() ** 3 * 150_000),
      serverMs: Math.round(next() * 60),
      cpuMs: Math.round(next() * 40),
      follow: i + 1 < count && next() < 0.4 ? [{ when: 'eval', do: { kind: 'import', group: i + 1 } }] : [],
    }),
  );
  const markup = resources.flatMap((_, i): MarkupItem[] =>
    i === 0 || next() < 0.6 ? [{ at: 100 + i, tag: 'script', group: i, mode: modes[Math.floor(next() * 3)] }] : [],
  );
  return page(markup, resources);
}

const lastEnd = (program: LoadProgram, conditions: Conditions) =>
  Math.max(...simulate(program, conditions).tasks.map((t) => t.end));

describe('better conditions', () => {
  it('hardly ever make any page later: in at most one of fifty tries', () => {
    let worse = 0;
    let tries = 0;
    for (let seed = 1; seed <= 150; seed++) {
      const program = anyPage(seed);
      const next = seeded(seed * 31);
      const link = {
        ...ROUND.link,
        rttMs: 20 + next() * 300,
        downKbps: 400 + next() * 12_000,
        upKbps: 200 + next() * 4000,
      };
      const conditions = { ...ROUND, link, device: { ...ROUND.device, cpuFactor: 1 + next() * 6 } };
      const now = lastEnd(program, conditions);
      const better: Conditions[] = [
        { ...conditions, link: { ...link, downKbps: link.downKbps * 1.5 } },
        { ...conditions, link: { ...link, rttMs: link.rttMs * 0.7 } },
        { ...conditions, device: { ...conditions.device, cpuFactor: conditions.device.cpuFactor * 0.6 } },
      ];
      const smaller = { ...program, resources: program.resources.map((r) => ({ ...r, bytes: r.bytes * 0.8 })) };
      for (const end of [...better.map((c) => lastEnd(program, c)), lastEnd(smaller, conditions)]) {
        tries++;
        if (end > now + 0.5) worse++;
      }
    }
    expect(tries).toBe(600);
    expect(worse / tries).toBeLessThanOrEqual(0.02);
  });
});
