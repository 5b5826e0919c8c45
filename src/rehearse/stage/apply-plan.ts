import { applyPatch, parsePatch } from 'diff';
import { decisionWords } from '../../core/plan/decisions.ts';
import type { Decision, Plan } from '../../core/plan/types.ts';
import { shipped } from '../../core/ship/shipped.ts';
import type { Snapshot } from '../../core/snapshot/types.ts';
import { sourcePatch } from '../../patch/patch.ts';
import type { PatchStep } from '../../patch/types.ts';
import { readWith } from '../../reader/folder-files.ts';
import { type Reading, readSource, type SourceOptions } from '../../reader/read-source.ts';

/** An app's sources under a plan: with what the plan edits in them, read, and what of the plan is left to be applied to files. */
export interface Applied {
  snapshot: Snapshot;
  texts: Readonly<Record<string, string>>;
  plan: Plan;
  /** Decisions that are left out because only a person can make their edit, in words. */
  told: string[];
}

/** Where the edits of a plan are made in code, so that nothing of it is left to apply to files. */
const IN_CODE: readonly Decision['kind'][] = ['detach', 'join', 'move', 'trim'];

/**
 * Reads an app’s folder as a plan means it: its edits are those of the source patch, and no file is written. Decisions whose edit has to be written
 * by hand are left out, and told.
 */
export function applyPlan(folder: string, plan: Plan, options: SourceOptions = {}): Applied {
  const read = readSource(folder, options);
  const { plan: possible, told, diff, edited } = whatCanBeEdited(read, plan);
  if (diff === '') return { ...asShipped(read, possible), told };
  const again = readWith(folder, patchedTexts(diff, read.sources), () => readSource(folder, options));
  const left = possible.decisions.filter((d, at) => !(IN_CODE.includes(d.kind) && edited.has(at)));
  return { ...asShipped(again, { ...possible, decisions: left }), told };
}

function asShipped({ snapshot, texts }: Reading, plan: Plan): Pick<Applied, 'snapshot' | 'texts' | 'plan'> {
  return { snapshot: shipped(snapshot, plan).snapshot, texts, plan };
}

interface Possible {
  plan: Plan;
  told: string[];
  diff: string;
  /** Decisions that the patch makes, by their index in the plan. */
  edited: Set<number>;
}

/** A plan without what can’t be edited in; taken out one round after another, since edits stand on each other. */
function whatCanBeEdited({ snapshot, sources }: Reading, given: Plan): Possible {
  const told: string[] = [];
  let plan = given;
  for (;;) {
    const { diff, steps } = sourcePatch(snapshot, plan, sources);
    const failed = steps.filter((s) => s.state === 'by hand' || s.state === 'refused');
    if (failed.length === 0)
      return { plan, told, diff, edited: new Set(steps.filter(isEdited).map((s) => s.decision)) };
    const out = new Map<number, PatchStep>(failed.map((s) => [s.decision, s]));
    for (const [at, { what, path, line }] of out) {
      // What is only a behaviour of a split point is run as the code has it.
      const where = path === '' ? '' : ` (${path}:${line})`;
      told.push(`left out: ${decisionWords(plan.decisions[at])}: ${what}${where}`);
    }
    plan = { ...plan, decisions: plan.decisions.filter((_, at) => !out.has(at)) };
  }
}

const isEdited = ({ state }: PatchStep) => state === 'edited';

/** The texts of the files that a diff edits, with its edits made. */
function patchedTexts(diff: string, sources: Reading['sources']): Map<string, string> {
  return new Map(
    parsePatch(diff).map((file) => {
      const name = (file.newFileName ?? '').replace(/^b\//, '');
      const text = applyPatch(sources[name], file);
      if (text === false) throw new Error(`the plan’s edit of ${name} doesn’t fit the file`);
      return [name, text];
    }),
  );
}
