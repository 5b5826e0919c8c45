import { decisionWords, shipsBy } from '../core/plan/decisions.ts';
import { chosenImports, type EffectivePlan, effectivePlan } from '../core/plan/effective.ts';
import type { Decision, Plan } from '../core/plan/types.ts';
import type { Import } from '../core/snapshot/module-types.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import { parse } from '../reader/script/parse.ts';
import { languageOf } from '../reader/script/shipped-code.ts';
import type { PatchContext } from './context.ts';
import { detach } from './detach.ts';
import { FileEdits } from './file-edits.ts';
import { join } from './join.ts';
import { moveSteps } from './move.ts';
import { isReadableSheet, isSheet, SheetEdits } from './sheet-edits.ts';
import { type Deferring, triggerSteps } from './trigger-steps.ts';
import { recipe } from './triggers.ts';
import { trimSteps } from './trim.ts';
import { notOpened, type PatchStep, type SourcePatch } from './types.ts';
import { countLines, unifiedDiff } from './unified-diff.ts';
import { wrapperOf } from './wrapper.ts';

/** Text of the app's own scripts by path, as they were when the app was read. */
export type Sources = Readonly<Record<string, string>>;

/** The file at a path as it is now; null when it is gone. */
export type SourceNow = (path: string) => string | null;

/**
 * The edits of the source that a plan means, as one unified diff, and for each decision that ships by source edit what
 * became of it. A file that changed since it was read (`now`) is refused, with the reason; what can't be edited
 * safely is told with the code to write by hand.
 */
export function sourcePatch(snapshot: Snapshot, plan: Plan, sources: Sources, now?: SourceNow): SourcePatch {
  const effective = effectivePlan(snapshot, plan);
  const scripts = new Map<string, FileEdits | string>();
  const sheets = new Map<string, SheetEdits | string>();
  const editsOr = opener(scripts, (path) => opened(path, sources, now));
  const sheetOr = opener(sheets, (path) => openedSheet(path, sources, now));
  const context: PatchContext = {
    snapshot,
    wrapper: wrapperOf(snapshot, sources),
    settings: effective.settings,
    triggers: effective.triggers,
    edits: (path) => {
      const made = editsOr(path);
      return typeof made === 'string' ? null : made;
    },
  };
  const steps: PatchStep[] = [];
  const meant = plan.decisions.flatMap((decision, at) => {
    if (shipsBy(decision) !== 'source edit' || effective.stale.some((s) => s.decision === at)) return [];
    return [{ decision, step: { decision: at, words: decisionWords(decision) } }];
  });
  const edited = new Map<string, Done>();
  for (const { decision, step } of meant) {
    if (decision.kind !== 'detach' && decision.kind !== 'join') continue;
    for (const item of importsOf(snapshot, decision)) {
      const { path } = snapshot.modules[item.from];
      const made = { ...step, path, line: item.line };
      const said = alreadySo(item, effective.deferred[snapshot.imports.indexOf(item)] === 1, decision.kind);
      if (said !== null) {
        steps.push({ ...made, state: 'nothing to do', what: said, recipe: '' });
        continue;
      }
      const outcome = edited.get(placeOf(item)) ?? editImport(context, editsOr(path), item, effective);
      edited.set(placeOf(item), outcome);
      const recipe = outcome.state === 'by hand' ? byHand(snapshot, item, effective) : '';
      steps.push({ ...made, ...outcome, recipe });
    }
  }
  // What begins an import is written once it is known whether that is deferred.
  const isDeferred = (item: Import) => item.kind === 'dynamic' || edited.get(placeOf(item))?.state === 'edited';
  for (const { decision, step } of meant) {
    if (decision.kind === 'detach' || decision.kind === 'join') continue;
    const others = otherSteps({ ...context, isDeferred }, editsOr, sheetOr, effective, decision);
    steps.push(...others.map((s) => ({ ...step, ...s })));
  }
  steps.sort((x, y) => x.decision - y.decision);
  return written(new Map<string, Edits | string>([...scripts, ...sheets]), sources, steps);
}

/** One statement of a file, whichever of the modules behind it is meant. */
function placeOf({ from, start, end }: Import): string {
  return `${from} ${start} ${end}`;
}

/** Why an import isn't to be edited, though a decision names it; null if it is. */
function alreadySo(item: Import, deferred: boolean, kind: 'detach' | 'join'): string | null {
  if (deferred !== (kind === 'detach')) return 'a later decision says otherwise';
  return (item.kind === 'dynamic') === (kind === 'detach') ? 'the code says so already' : null;
}

/** What was opened once stays open. */
function opener<T>(
  open: Map<string, T | string>,
  openFile: (path: string) => T | string,
): (path: string) => T | string {
  return (path) => {
    const made = open.get(path) ?? openFile(path);
    open.set(path, made);
    return made;
  };
}

function importsOf(snapshot: Snapshot, decision: Extract<Decision, { kind: 'detach' | 'join' }>): Import[] {
  const chosen = chosenImports(snapshot, decision);
  return typeof chosen === 'string' ? [] : chosen.map((i) => snapshot.imports[i]);
}

/** Whether a path leads out of the folder that a patch is applied to, or into git's own files there; git refuses such patches whole. */
function leavesTree(path: string): boolean {
  return (
    /^(?:[\\/]|[A-Za-z]:)/.test(path) ||
    path.includes('\0') ||
    path.split(/[\\/]/).some((s) => /^(?:\.\.?|\.git)?$/i.test(s))
  );
}

/** The text of a file that may be edited; in words, why it can't be. */
function textOf(path: string, sources: Sources, now: SourceNow | undefined): { text: string } | string {
  const text = Object.hasOwn(sources, path) ? sources[path] : undefined;
  if (leavesTree(path)) return 'it stands outside of the folder that was read: change it there';
  if (path.includes('node_modules/'))
    return 'it stands in a package, which isn’t yours to edit: defer the import of the package';
  if (text === undefined) return 'its source isn’t kept with the project: read the app again';
  const today = now ? now(path) : text;
  if (today === null) return 'CHANGED the file is no longer there; read the app again';
  if (today !== text) return 'CHANGED the file has changed since the app was read; read it again';
  return { text };
}

function opened(path: string, sources: Sources, now: SourceNow | undefined): FileEdits | string {
  const found = textOf(path, sources, now);
  if (typeof found === 'string') return found;
  if (!/\.[cm]?[jt]sx?$/.test(path)) return 'it holds a script inside of a template, which the patch doesn’t edit';
  return new FileEdits(path, found.text);
}

function openedSheet(path: string, sources: Sources, now: SourceNow | undefined): SheetEdits | string {
  const found = textOf(path, sources, now);
  if (typeof found === 'string') return found;
  return isReadableSheet(found.text) ? new SheetEdits(found.text) : 'it can’t be read as a style sheet';
}

type Done = Pick<PatchStep, 'state' | 'what'>;

function editImport(context: PatchContext, edits: FileEdits | string, item: Import, { deferred }: EffectivePlan): Done {
  const { snapshot } = context;
  if (typeof edits === 'string') return notOpened(edits);
  const { path } = snapshot.modules[item.from];
  const ofStatement = snapshot.imports.filter(
    (i) => i.from === item.from && i.start === item.start && i.end === item.end,
  );
  const wanted = ofStatement.filter((i) => (deferred[snapshot.imports.indexOf(i)] === 1) === (item.kind === 'static'));
  if (wanted.length < ofStatement.length)
    return {
      state: 'by hand',
      what: 'one statement leads to several modules, and not all are meant: import each by a line of its own',
    };
  const text = edits.file.text.slice(item.start, item.end);
  // A computed address isn't written out.
  if (item.end > item.start && !text.includes(item.specifier) && !text.includes('`'))
    return { state: 'refused', what: `${path} isn’t the file that was read: the import doesn’t stand where it stood` };
  const found = item.kind === 'static' ? detach(context, edits, item) : join(context, edits, item);
  if ('reason' in found) return { state: 'by hand', what: found.reason };
  found.change();
  return { state: 'edited', what: found.done };
}

function byHand(snapshot: Snapshot, item: Import, { triggers }: EffectivePlan): string {
  const target = snapshot.modules[item.to].path;
  if (item.kind === 'dynamic') return `import * as module from '${item.specifier}';`;
  return recipe(item.specifier, item.names, triggers.get(target) ?? { on: 'action' });
}

type OtherStep = Omit<PatchStep, 'decision' | 'words'>;

/** Decisions about how a split point behaves, and about what of a module ships. */
function otherSteps(
  context: PatchContext & Deferring,
  editsOr: (path: string) => FileEdits | string,
  sheetOr: (path: string) => SheetEdits | string,
  effective: EffectivePlan,
  decision: Decision,
): OtherStep[] {
  const { snapshot } = context;
  if (decision.kind === 'trigger')
    return triggerSteps(context, editsOr, effective, decision.splitPoint, decision.fetch);
  const hand = (path: string, what: string): OtherStep => ({ path, line: 1, state: 'by hand', what, recipe: '' });
  switch (decision.kind) {
    case 'split':
      return [
        hand(decision.splitPoint, 'what a split point shows meanwhile, and when it runs, is written where it is drawn'),
      ];
    case 'no script':
      return [hand(decision.module, 'draw it on the server only, and give what answers inside it a start of its own')];
    case 'move':
      return moveSteps(context, editsOr, decision);
    case 'trim':
      return trimSteps(snapshot, sheetOr, decision.module);
    case 'detach':
    case 'join':
    case 'hint':
    case 'script':
    case 'loader':
    case 'put aside':
    case 'drop link':
    case 'one version':
    case 'style in script':
    case 'gather':
    case 'together':
    case 'apart':
    case 'floor':
    case 'ceiling':
    case 'copy':
    case 'grain':
    case 'chunk name':
      return [];
  }
}

interface Edits {
  finish(): string;
}

function isReadable(path: string, text: string): boolean {
  if (isSheet(path)) return isReadableSheet(text);
  return parse(path, text, { lang: languageOf(path) }).errors.length === 0;
}

/** Writes all edits out; a file that no longer parses with them stays as it is. */
function written(open: ReadonlyMap<string, Edits | string>, sources: Sources, steps: PatchStep[]): SourcePatch {
  const files: SourcePatch['files'] = [];
  const parts: string[] = [];
  for (const [path, edits] of [...open].sort(([a], [b]) => (a < b ? -1 : 1))) {
    if (typeof edits === 'string') continue;
    const text = edits.finish();
    if (text === sources[path]) continue;
    if (!isReadable(path, text)) {
      for (const step of steps) {
        if (step.path !== path || step.state !== 'edited') continue;
        Object.assign(step, {
          state: 'by hand',
          what: 'several edits of this file don’t fit together: do them one after another',
        });
      }
      continue;
    }
    const diff = unifiedDiff(path, sources[path], text);
    parts.push(diff);
    files.push({ path, ...countLines(diff) });
  }
  return { diff: parts.join(''), files, steps };
}
