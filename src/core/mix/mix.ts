import { InputError } from '../errors.ts';
import type { LoadProgram } from '../load/types.ts';
import { type Milestones, type Readout, readTimeline } from '../metrics/readout.ts';
import type { Conditions, Device, Link } from '../sim/conditions.ts';
import { normal, seeded } from '../sim/random.ts';
import { simulate } from '../sim/simulate.ts';

/** Who comes: links and devices with their weights (in any unit), and how much single visits differ from them. */
export interface Mix {
  links: { link: Link; weight: number }[];
  devices: { device: Device; weight: number }[];
  /** Share of visits that return with a warm cache, 0 to 1. */
  returning: number;
  /** Spread of round trip, rate and CPU factor around their profile, as the standard deviation of their logarithm. */
  spread: number;
}

/** Metrics of one drawn landing, in ms; NaN when it never came to that. */
export type Drawn = Milestones & Pick<Readout, 'blocked'>;

/** The conditions of a number of visits, drawn from a mix. The same seed gives the same visits. */
export function drawConditions(mix: Mix, count: number, seed: number): Conditions[] {
  const pick = <T extends { weight: number }>(of: T[], what: string, at: number): T => {
    const weighty = of.filter((o) => o.weight > 0);
    const last = weighty.pop();
    if (!last) throw new InputError('An empty mix', `Give at least one of the ${what} a weight above 0.`, what);
    let left = at * weighty.reduce((sum, o) => sum + o.weight, last.weight);
    for (const o of weighty) {
      left -= o.weight;
      if (left < 0) return o;
    }
    return last;
  };
  const next = seeded(seed);
  return Array.from({ length: count }, (_, n): Conditions => {
    const { link } = pick(mix.links, 'links', next());
    const { device } = pick(mix.devices, 'devices', next());
    const vary = (value: number) => value * Math.exp(mix.spread * normal(next));
    const rate = vary(1);
    const factor = vary(1);
    return {
      link: {
        ...link,
        ...{ rttMs: vary(link.rttMs), downKbps: link.downKbps * rate, upKbps: link.upKbps * rate },
        ...(link.lossPercent ? { lossSeed: n } : {}),
      },
      device: { ...device, cpuFactor: device.cpuFactor * factor, browserFactor: device.browserFactor * factor },
      cache: next() < mix.returning ? 'returning' : 'empty',
    };
  });
}

/** One landing under drawn conditions. */
export function landUnder(program: LoadProgram, conditions: Conditions): Drawn {
  const { milestones, readout } = readTimeline(program, simulate(program, conditions), conditions);
  return { ...milestones, blocked: readout.blocked };
}
