import type { Decision } from '../core/plan/types.ts';
import { relativeAddress } from '../core/ship/moved.ts';
import { graphIndex } from '../core/snapshot/graph-index.ts';
import { shortName } from '../core/text/short-name.ts';
import type { PatchContext } from './context.ts';
import type { FileEdits } from './file-edits.ts';
import { notOpened, type PatchStep } from './types.ts';

type MoveStep = Omit<PatchStep, 'decision' | 'words'>;

/** The import of a style sheet goes from one module and is written into another; both or neither. */
export function moveSteps(
  { snapshot }: PatchContext,
  editsOr: (path: string) => FileEdits | string,
  decision: Extract<Decision, { kind: 'move' }>,
): MoveStep[] {
  const index = graphIndex(snapshot);
  const item = snapshot.imports[index.importAt.get(decision.import) ?? -1];
  if (!item) return [];
  const { path } = snapshot.modules[item.from];
  const sheet = snapshot.modules[item.to];
  // A package is named as such; its files aren't the app's.
  const address = /^[./]/.test(item.specifier) ? relativeAddress(decision.to, sheet.path) : item.specifier;
  const line = (quoted: string) => `import ${quoted};`;
  const here = { path, line: item.line };
  const there = { path: decision.to, line: 1 };
  const byHand = (what: string): MoveStep[] => [
    { ...here, state: 'by hand', what, recipe: '' },
    { ...there, state: 'by hand', what: `import ${shortName(sheet.path)} here instead`, recipe: line(`'${address}'`) },
  ];
  const [from, to] = [editsOr(path), editsOr(decision.to)];
  for (const [place, edits] of [
    [here, from],
    [there, to],
  ] as const) {
    if (typeof edits !== 'string') continue;
    const { state, what } = notOpened(edits);
    return state === 'by hand' ? byHand(what) : [{ ...place, state, what, recipe: '' }];
  }
  const [source, target] = [from as FileEdits, to as FileEdits];
  const statement = source.file.body.find((s) => s.start === item.start && s.end === item.end);
  if (statement?.type !== 'ImportDeclaration' || (statement.specifiers as unknown[]).length > 0)
    return byHand('its import gives names to this module, or is no statement of its own');
  source.drop(statement);
  const edges = [...index.incoming.subarray(index.inStart[item.to], index.inStart[item.to + 1])];
  const known = edges.some((i) => snapshot.modules[snapshot.imports[i].from].path === decision.to);
  if (!known) target.import(line(target.file.quoted(address)));
  return [
    { ...here, state: 'edited', what: `${shortName(sheet.path)} is no longer imported here`, recipe: '' },
    { ...there, state: 'edited', what: `${shortName(sheet.path)} is imported here`, recipe: '' },
  ];
}
