import { DEVICES, FORMER_DEVICES, FORMER_LINKS, LINKS } from './conditions.ts';
import { deviceOf, linkOf, ownDeviceId, ownLinkId } from './own-conditions.ts';

describe('conditions of own values', () => {
  it('come back from their id as they were', () => {
    const link = {
      ...LINKS[0],
      rttMs: 33,
      downKbps: 12_500,
      protocol: 'h1' as const,
      serverScheduling: 'urgency' as const,
    };
    for (const more of [
      {},
      { lossPercent: 1.5 },
      { protocol: 'h2-h3' as const, serverScheduling: 'shared' as const },
    ]) {
      const { id, name } = linkOf(ownLinkId({ ...link, ...more }));
      expect(linkOf(id)).toEqual({ ...link, ...more, id, name });
    }
    const device = { ...DEVICES[0], cpuFactor: 3.2, browserFactor: 3.2, dataSaver: true, evaluationRate: 0.0002 };
    expect(deviceOf(ownDeviceId(device))).toMatchObject({
      cpuFactor: 3.2,
      dataSaver: true,
      touch: true,
      evaluationRate: 0.0002,
    });
  });

  it('are named ones by their id, and the first named one for what means nothing', () => {
    expect(linkOf('home-line')).toBe(LINKS.find((l) => l.id === 'home-line'));
    for (const id of ['', 'own', 'own~0~0~0~0', 'own~-1~100~100~0', 'own~x~100~100~0~h2~1.3~fifo', 'other~1~100~100~1'])
      expect(linkOf(id)).toBe(LINKS[0]);
    for (const id of ['own~0~390~800', 'own~4~9999999~1', 'own~NaN~400~400~touch~full'])
      expect(deviceOf(id)).toBe(DEVICES[0]);
  });

  it('of before keep the values that limits were agreed on with, and aren’t offered any more', () => {
    expect(linkOf('crowded-4g')).toMatchObject({ rttMs: 150, downKbps: 1600, upKbps: 750 });
    expect(deviceOf('mid-phone')).toMatchObject({ cpuFactor: 4, browserFactor: 4 });
    const offered = [...LINKS, ...DEVICES].map((o) => o.id);
    const former = [...FORMER_LINKS, ...FORMER_DEVICES].map((o) => o.id);
    expect(former.filter((id) => offered.includes(id))).toEqual([]);
    expect(new Set([...offered, ...former]).size).toBe(offered.length + former.length);
  });
});
