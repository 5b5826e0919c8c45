import { sketch } from '../../test-support/snapshots.ts';
import { evaluationCost } from './evaluation-cost.ts';
import { weightOf } from './package-weights.ts';

describe('what running modules costs', () => {
  const app = sketch({
    own: { bytes: 1000 },
    measured: { bytes: 1000 },
    sheet: { bytes: 1000, kind: 'style' },
    dear: { bytes: 1000, package: 'lodash-es' },
    other: { bytes: 1000, package: 'lodash-es-by-another-name' },
  });
  app.modules[1].evaluationMs = 7;
  const { weight } = weightOf('lodash-es', null)!;

  it('is measured, goes by the table of packages, or by size alone', () => {
    expect(evaluationCost(app, [0])).toEqual({ measuredMs: 0, elsewhereMs: 0, estimatedBytes: 1000, tabledBytes: 0 });
    expect(evaluationCost(app, [1])).toEqual({ measuredMs: 7, elsewhereMs: 0, estimatedBytes: 0, tabledBytes: 0 });
    expect(evaluationCost(app, [2])).toEqual({ measuredMs: 0, elsewhereMs: 0, estimatedBytes: 0, tabledBytes: 0 });
    expect(evaluationCost(app, [4])).toEqual({ measuredMs: 0, elsewhereMs: 0, estimatedBytes: 1000, tabledBytes: 0 });
    const dear = evaluationCost(app, [3]);
    expect(weight).toBeGreaterThan(1.5);
    expect(dear).toEqual({ measuredMs: 0, elsewhereMs: 0, estimatedBytes: weight * 1000, tabledBytes: weight * 1000 });
    expect(evaluationCost(app, [0, 1, 2, 3, 4]).estimatedBytes).toBe(2000 + weight * 1000);
  });

  it('takes the table for the major version that was measured, and as an estimate for others', () => {
    const { packages, ...rest } = app;
    const at = (version: string | null) =>
      evaluationCost({ ...rest, packages: [{ name: 'lodash-es', version, folder: 'node_modules/lodash-es' }] }, [3]);
    expect(at('4.99.0').tabledBytes).toBe(weight * 1000);
    expect(at(null).tabledBytes).toBe(weight * 1000);
    const copies = ['node_modules/lodash-es', 'node_modules/kit/node_modules/lodash-es'].map((folder, i) => ({
      ...{ name: 'lodash-es', version: i === 0 ? '4.17.21' : '3.10.1', folder },
    }));
    const [outer, inner] = copies.map(({ folder }) => {
      const modules = app.modules.map((m) => (m.path === 'dear' ? { ...m, path: `${folder}/a.js` } : m));
      return evaluationCost({ ...rest, modules, packages: copies }, [3]).tabledBytes;
    });
    expect([outer, inner]).toEqual([weight * 1000, 0]);
    expect(at('3.10.1')).toEqual({ measuredMs: 0, elsewhereMs: 0, estimatedBytes: weight * 1000, tabledBytes: 0 });
  });
});
