import { landingShares } from './landing-shares.ts';

const shares = (...landings: (number | undefined)[]) => [
  ...landingShares(landings.map((l, i) => ({ pattern: `/${i}`, landings: l }))).values(),
];

describe('shares of landings', () => {
  it('are alike where no route says, and follow what is said in any unit', () => {
    expect(shares(undefined, undefined)).toEqual([0.5, 0.5]);
    expect(shares(30, 10)).toEqual([0.75, 0.25]);
    expect(shares(3000, 1000)).toEqual([0.75, 0.25]);
  });

  it('count a route that doesn’t say like the middle of those that do', () => {
    expect(shares(8, 1, 1, undefined)).toEqual([8 / 11, 1 / 11, 1 / 11, 1 / 11]);
  });

  it('are alike where nobody lands anywhere', () => {
    expect(shares(0, 0, 0, 0)).toEqual([0.25, 0.25, 0.25, 0.25]);
  });
});
