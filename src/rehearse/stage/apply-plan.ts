import { applyPatch, parsePatch } from 'diff';
import { amend } from '../../core/amend/amend.ts';
import { type Amendments, NO_AMENDMENTS } from '../../core/amend/types.ts';
import { shipsBy } from '../../core/plan/decisions.ts';
import type { Decision, Plan } from '../../core/plan/types.ts';
import { shipped } from '../../core/ship/shipped.ts';
import type { Snapshot } from '../../core/snapshot/types.ts';
import { sourcePatch } from '../../patch/patch.ts';
import type { PatchStep } from '../../patch/types.ts';
import { readWith } from '../../reader/folder-files.ts';
import { type ReadOptions, readApp } from '../../reader/read-app.ts';
import type { Reading } from '../../reader/read-source.ts';

/** An app's sources under a plan: with what the plan edits in them, read, and what of the plan is left to be applied to files. */
export interface Applied {
  snapshot: Snapshot;
  texts: Readonly<Record<string, string>>;
  plan: Plan;
  /** Decisions that are left out because only a person can make their edit, by their index in the plan that was given, and why. */
  leftOut: { decision: number; why: string }[];
}

/** Where the edits of a plan are made in code, so that nothing of it is left to apply to files. */
const IN_CODE: readonly Decision['kind'][] = ['detach', 'join', 'move', 'trim'];

/**
 * Reads an app’s folder as a plan means it: its edits are those of the source patch, and no file is written. Decisions whose edit has to be written
 * by hand are left out, and told.
 */
export function applyPlan(
  folder: string,
  plan: Plan,
  amendments: Amendments = NO_AMENDMENTS,
  options: ReadOptions = {},
): Applied {
  const read = asCorrected(readApp(folder, options), amendments);
  if (read.snapshot.output !== null) return asBuilt(read, plan);
  const { plan: possible, leftOut, diff, edited } = whatCanBeEdited(read, plan);
  if (diff === '') return { ...asShipped(read, possible), leftOut };
  const again = readWith(folder, patchedTexts(diff, read.sources), () => readApp(folder, options));
  const left = possible.decisions.filter((d, at) => !(IN_CODE.includes(d.kind) && edited.has(at)));
  return { ...asShipped(asCorrected(again, amendments), { ...possible, decisions: left }), leftOut };
}

/** Files of a production build are served as they are: of a plan what servers and documents do can be run. */
function asBuilt({ snapshot, texts }: Reading, plan: Plan): Applied {
  const ways = plan.decisions.map(shipsBy);
  const decisions = plan.decisions.filter((_, at) => ways[at] === 'server or markup' || ways[at] === 'nothing to ship');
  const leftOut = ways.flatMap((way, decision) =>
    way === 'source edit' || way === 'build setting'
      ? [
          {
            decision,
            why: 'the files of a production build are served as they are: build again with it, or rehearse the sources',
          },
        ]
      : [],
  );
  return { snapshot, texts, plan: { ...plan, decisions }, leftOut };
}

function asCorrected(reading: Reading, amendments: Amendments): Reading {
  return { ...reading, snapshot: amend(reading.snapshot, amendments).snapshot };
}

function asShipped({ snapshot, texts }: Reading, plan: Plan): Pick<Applied, 'snapshot' | 'texts' | 'plan'> {
  return { snapshot: shipped(snapshot, plan).snapshot, texts, plan };
}

interface Possible extends Pick<Applied, 'plan' | 'leftOut'> {
  diff: string;
  /** Decisions that the patch makes, by their index in this plan. */
  edited: Set<number>;
}

/** A plan without what can’t be edited in; taken out one round after another, since edits stand on each other. */
function whatCanBeEdited({ snapshot, sources }: Reading, plan: Plan): Possible {
  const leftOut = new Map<number, string>();
  for (;;) {
    const kept = plan.decisions.flatMap((_, at) => (leftOut.has(at) ? [] : [at]));
    const possible = { ...plan, decisions: kept.map((at) => plan.decisions[at]) };
    const { diff, steps } = sourcePatch(snapshot, possible, sources);
    const failed = steps.filter((s) => s.state === 'by hand' || s.state === 'refused');
    for (const { decision, what, path, line } of failed)
      leftOut.set(kept[decision], path === '' ? what : `${what} (${path}:${line})`);
    if (failed.length > 0) continue;
    const told = [...leftOut].map(([decision, why]) => ({ decision, why }));
    return { plan: possible, leftOut: told, diff, edited: new Set(steps.filter(isEdited).map((s) => s.decision)) };
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
