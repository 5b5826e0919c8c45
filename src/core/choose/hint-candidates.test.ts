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

/** Candidates of an app in which 90 % go from / to /next; `apart`: that page has a document of its own. */
function candidatesOf(apart: boolean) {
  const realm = apart ? 'other' : 'site';
  const app = sketch(
    {
      main: { imports: ['~home', ...(apart ? [] : ['~next'])] },
      second: { imports: ['~next'] },
      home: { bytes: 30_000, imports: ['~dialog'], context: 'handler' },
      next: { bytes: 40_000 },
      dialog: { bytes: 20_000 },
    },
    { routes: [route('/', 'home'), { ...route('/next', 'next'), realm }] },
  );
  if (apart) app.entries.push({ realm, kind: 'document', document: 'next.html', modules: ['second'] });
  const { model } = modelOf(app);
  const routes = model.routes.map((r) => ({
    ...r,
    landings: r.pattern === '/' ? 1 : 0,
    moves: r.pattern === '/' ? [{ to: '/next', share: 0.9 }] : [],
  }));
  const found = hintCandidates(new AnalysisContext(app, BASELINE, DEFAULT_CONDITIONS), { ...model, routes });
  return found.flatMap((f) =>
    f.remedy.decisions.flatMap((d) => (d.kind === 'hint' ? [{ ...f, of: d.hint.routes[0], hint: d.hint }] : [])),
  );
}

describe('what visitors want next', () => {
  it('is hinted at with how many of those who are there want it', () => {
    const ahead = candidatesOf(false).filter((c) => c.hint.target.kind === 'route');
    expect(ahead.length).toBeGreaterThan(0);
    expect(new Set(ahead.map((c) => c.why))).toEqual(new Set(['90 % of those on / go to /next next']));
    expect(new Set(ahead.map((c) => c.of))).toEqual(new Set(['/']));
  });

  it('is code inside one document, and the document where it has one of its own', () => {
    const kinds = (apart: boolean) =>
      new Set(candidatesOf(apart).flatMap((c) => (c.hint.target.kind === 'route' ? [c.hint.kind] : [])));
    expect([...kinds(false)].some((kind) => /document/.test(kind))).toBe(false);
    expect([...kinds(true)].every((kind) => /document/.test(kind))).toBe(true);
  });

  it('makes hints of a document matter to those who come from another one, and to nobody inside the same', () => {
    const touched = (apart: boolean) =>
      new Set(candidatesOf(apart).flatMap((c) => (c.of === '/next' ? [c.routes?.join(' ')] : [])));
    expect(touched(true)).toEqual(new Set(['/next /']));
    expect(touched(false)).toEqual(new Set(['/next']));
  });
});
