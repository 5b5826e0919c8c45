import { part, route, sketch } from '../../../test-support/snapshots.ts';
import { graphIndex } from '../../snapshot/graph-index.ts';
import { AllReach } from '../all-reach.ts';
import { collectRoots, rootCandidates } from '../roots.ts';
import { rootWeights } from './weights.ts';

const app = sketch(
  { main: { imports: ['~a', '~b', '~dialog', '~other'] }, a: {}, b: {}, dialog: {}, other: {} },
  {
    routes: [
      route('/a', 'a', { parts: [part('d', 'dialog', { place: 'action', share: 0.4 })] }),
      route('/b', 'b', { parts: [part('d', 'dialog', { place: 'action', share: 0.2 })] }),
    ],
  },
);
const deferred = Uint8Array.from(app.imports, (i) => (i.kind === 'dynamic' ? 1 : 0));
const index = graphIndex(app);
const reach = new AllReach(index, deferred, rootCandidates(app, index, deferred));
const drafts = collectRoots(app, index, deferred, reach, app.entries[0]);
const weights = (landings: Record<string, number> = {}) =>
  Object.fromEntries(
    rootWeights({ ...app, routes: app.routes.map((r) => ({ ...r, landings: landings[r.pattern] })) }, drafts).map(
      (w, r) => [drafts[r].id.replace('site:', ''), Math.round(w * 100) / 100],
    ),
  );

describe('how often roots are asked for', () => {
  it('is one for the entry, the share of landings for pages, that of visits for parts', () => {
    expect(weights()).toEqual({ entry: 1, a: 0.5, b: 0.5, dialog: 0.3, other: 0.2 });
  });

  it('follows landing shares where they are given', () => {
    expect(weights({ '/a': 9, '/b': 1 })).toMatchObject({ a: 0.9, b: 0.1, dialog: 0.38 });
  });
});
