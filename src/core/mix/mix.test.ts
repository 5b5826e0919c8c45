import { file, page, ROUND } from '../../test-support/programs.ts';
import { DEVICES, LINKS } from '../sim/conditions.ts';
import { drawConditions, landUnder, type Mix } from './mix.ts';
import { percentile } from './percentile.ts';

const mix: Mix = {
  links: [
    { link: LINKS[0], weight: 3 },
    { link: LINKS[4], weight: 1 },
  ],
  devices: DEVICES.slice(0, 2).map((device) => ({ device, weight: 1 })),
  returning: 0.25,
  spread: 0.2,
};

describe('a mix of conditions', () => {
  const drawn = drawConditions(mix, 4000, 7);

  it('is drawn alike for the same seed, and otherwise for another', () => {
    expect(drawConditions(mix, 50, 7)).toEqual(drawn.slice(0, 50));
    expect(drawConditions(mix, 50, 8)).not.toEqual(drawn.slice(0, 50));
  });

  it('is made of the links and devices by their weights in order, the last one where sums round down', () => {
    const [a, b, c] = LINKS;
    const of = (...weights: number[]) =>
      drawConditions({ ...mix, links: [a, b, c].map((link, i) => ({ link, weight: weights[i] })) }, 300, 3);
    expect(new Set(of(0, 0, 1).map((d) => d.link.id))).toEqual(new Set([c.id]));
    expect(new Set(of(1, 0, 0).map((d) => d.link.id))).toEqual(new Set([a.id]));
    expect(new Set(of(1, 0, 1).map((d) => d.link.id))).toEqual(new Set([a.id, c.id]));
    expect(() => of(0, 0, 0)).toThrow('at least one of the links');
  });

  it('numbers the losses of lossy links, and no others', () => {
    const lossy = { ...LINKS[0], lossPercent: 2 };
    const seeds = (link: Mix['links'][number]['link']) =>
      drawConditions({ ...mix, links: [{ link, weight: 1 }] }, 4, 3).map((c) => c.link.lossSeed);
    expect(seeds(lossy)).toEqual([0, 1, 2, 3]);
    expect(seeds(LINKS[0])).toEqual([undefined, undefined, undefined, undefined]);
  });

  it('is the profile itself without spread, and all warm or all cold at the ends', () => {
    const plain = drawConditions({ ...mix, spread: 0, returning: 0 }, 40, 3);
    for (const { link, device, cache } of plain) {
      expect([link.rttMs, link.downKbps]).toEqual(
        LINKS.filter((l) => l.id === link.id).flatMap((l) => [l.rttMs, l.downKbps]),
      );
      expect(device.cpuFactor).toBe(DEVICES.find((d) => d.id === device.id)!.cpuFactor);
      expect(cache).toBe('empty');
    }
    expect(new Set(drawConditions({ ...mix, returning: 1 }, 40, 3).map((c) => c.cache))).toEqual(
      new Set(['returning']),
    );
  });

  it('keeps the weights, and varies around each profile', () => {
    const share = (fits: (c: (typeof drawn)[number]) => boolean) => drawn.filter(fits).length / drawn.length;
    expect(share((c) => c.link.id === LINKS[0].id)).toBeCloseTo(0.75, 1);
    expect(share((c) => c.device.id === DEVICES[0].id)).toBeCloseTo(0.5, 1);
    expect(share((c) => c.cache === 'returning')).toBeCloseTo(0.25, 1);
    const logs = drawn.filter((c) => c.link.id === LINKS[0].id).map((c) => Math.log(c.link.rttMs / LINKS[0].rttMs));
    const mean = logs.reduce((a, b) => a + b, 0) / logs.length;
    const spread = Math.sqrt(logs.reduce((sum, l) => sum + (l - mean) ** 2, 0) / logs.length);
    expect(mean).toBeCloseTo(0, 1);
    expect(spread).toBeCloseTo(0.2, 1);
  });

  it('makes a link faster or slower as a whole, and a device too, each on its own', () => {
    const of = ({ link, device }: (typeof drawn)[number]) => {
      const plain = LINKS.find((l) => l.id === link.id)!;
      const usual = DEVICES.find((d) => d.id === device.id)!;
      expect(link.upKbps / plain.upKbps).toBeCloseTo(link.downKbps / plain.downKbps, 9);
      expect(device.browserFactor / usual.browserFactor).toBeCloseTo(device.cpuFactor / usual.cpuFactor, 9);
      return [link.rttMs / plain.rttMs, link.downKbps / plain.downKbps, device.cpuFactor / usual.cpuFactor].map(
        Math.log,
      );
    };
    const logs = drawn.map(of);
    for (const [a, b] of [
      [0, 1],
      [0, 2],
      [1, 2],
    ] as const) {
      const product = logs.reduce((sum, l) => sum + l[a] * l[b], 0) / logs.length;
      expect(product / 0.2 ** 2).toBeCloseTo(0, 1);
    }
    for (const at of [0, 1, 2]) {
      const spread = Math.sqrt(logs.reduce((sum, l) => sum + l[at] ** 2, 0) / logs.length);
      expect(spread).toBeCloseTo(0.2, 1);
    }
  });

  it('draws nobody without a weight, wherever they stand', () => {
    const one = [0, 1, 0].map((weight, i) => ({ link: { ...LINKS[0], id: `l${i}` }, weight }));
    const found = drawConditions({ ...mix, links: one }, 500, 3).map((c) => c.link.id);
    expect(new Set(found)).toEqual(new Set(['l1']));
  });

  it('without a spread lands exactly as its profiles do', () => {
    const program = page([{ at: 100, tag: 'script', group: 0, mode: 'module' }], [file('/a.js', { bytes: 30_000 })]);
    const plain = {
      ...mix,
      spread: 0,
      returning: 0,
      links: [{ link: ROUND.link, weight: 1 }],
      devices: [{ device: ROUND.device, weight: 1 }],
    };
    const [conditions] = drawConditions(plain, 1, 1);
    expect(landUnder(program, conditions)).toEqual(landUnder(program, ROUND));
  });

  it('refuses weights that leave nobody', () => {
    expect(() => drawConditions({ ...mix, links: [] }, 1, 1)).toThrow('An empty mix');
    expect(() => drawConditions({ ...mix, devices: [{ device: DEVICES[0], weight: 0 }] }, 1, 1)).toThrow('devices');
  });
});

describe('percentiles', () => {
  it('leave out what never happened', () => {
    expect(percentile([5, Number.NaN, 1, 3, 2, 4], 0.5)).toBe(3);
    expect(percentile([1, 2], 1)).toBe(2);
    expect(percentile([10, 9, 1, 8, 2, 7, 3, 6, 4, 5], 0.9)).toBe(10);
    expect(percentile([10, 9, 1, 8, 2, 7, 3, 6, 4, 5], 0.1)).toBe(2);
    expect(percentile([], 0.5)).toBeNaN();
  });
});
