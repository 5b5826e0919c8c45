import { route, sketch } from '../../test-support/snapshots.ts';
import { AnalysisContext } from '../advise/detect/analysis-context.ts';
import { BASELINE } from '../plan/types.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import type { ScriptPlacement } from '../snapshot/document-types.ts';
import { modelOf } from '../visitors/model.ts';
import { hintCandidates } from './hint-candidates.ts';

/** In which places connecting ahead is tried for a script of another origin. */
function placesFor(placement: ScriptPlacement): string[] {
  const script = {
    ...{ id: 'chat', name: 'chat', address: 'https://talk.example/c.js', bytes: 9000, serverMs: 10, evaluationMs: 5 },
    ...{ placement, evidence: { path: 'index.html', line: 4 } },
  };
  const app = sketch(
    { main: { imports: ['a'] }, a: { bytes: 40_000 } },
    { routes: [route('/', 'a')], scripts: [script] },
  );
  const found = hintCandidates(new AnalysisContext(app, BASELINE, DEFAULT_CONDITIONS), modelOf(app).model);
  return found.flatMap(({ remedy }) =>
    remedy.decisions.flatMap((d) => (d.kind === 'hint' && d.hint.kind === 'preconnect' ? [d.hint.place] : [])),
  );
}

it('connects ahead in the markup only for what the head doesn’t ask for itself', () => {
  expect(placesFor('end of body')).toContain('markup');
  const inHead = placesFor('blocking');
  expect(inHead).not.toContain('markup');
  expect(inHead).toContain('early');
});
