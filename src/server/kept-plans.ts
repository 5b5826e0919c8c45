import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { mergeDecided } from '../core/formats/merge-decided.ts';
import { type Decided, PLANS_FILE_NAME, parsePlansFile, writePlansFile } from '../core/formats/plans-file.ts';
import { BASELINE } from '../core/plan/types.ts';
import type { Store } from '../store/database.ts';
import { deletePlan, insertPlan, listPlans, renameOrigin, type StoredPlan, updatePlan } from '../store/plans.ts';
import { amendmentsOf, findProject, keptTextOf, updateAmendments, updateKeptText } from '../store/projects.ts';
import { Problem } from './problem.ts';
import { problemOf } from './problems.ts';
import { noProject } from './projects.ts';

/** What came of bringing a project and the file beside its code together. */
export interface Agreed {
  /** Whether there is such a file, so that both are kept in step. */
  kept: boolean;
  /** Whether the project has taken something from the file. */
  taken: boolean;
  /** What both changed, each otherwise, in words. */
  conflicts: string[];
}

const NOT_KEPT: Agreed = { kept: false, taken: false, conflicts: [] };

/**
 * Brings a project's plans, limits and corrections together with the file beside its code, both ways. Where the folder has no such file nothing is
 * done: `keepPlans` begins one. Throws InputError, and touches neither, where the file can't be understood, and Problem where it can't be written.
 */
export function agree(store: Store, projectId: string): Agreed {
  const project = findProject(store, projectId);
  if (!project) throw noProject();
  if (project.folder === null) return NOT_KEPT;
  const file = path.join(project.folder, PLANS_FILE_NAME);
  const text = textOf(file);
  const known = keptTextOf(store, projectId);
  if (text === null) {
    // Whoever removed it doesn't want one.
    if (known !== null) updateKeptText(store, projectId, null);
    return NOT_KEPT;
  }
  const ours = decidedBy(store, projectId);
  if (text === known) {
    const now = writePlansFile(ours);
    if (now !== known) write(store, projectId, file, now);
    return { kept: true, taken: false, conflicts: [] };
  }
  const theirs = parsePlansFile(text, PLANS_FILE_NAME);
  const base = known === null ? null : parsePlansFile(known, PLANS_FILE_NAME);
  const { decided, conflicts } = mergeDecided(base, base ? ours : withoutEmpty(ours), theirs);
  const taken = take(store, projectId, decided);
  const merged = writePlansFile(decidedBy(store, projectId));
  if (merged === text) updateKeptText(store, projectId, text);
  else write(store, projectId, file, merged);
  return { kept: true, taken, conflicts };
}

/** Begins to keep a project's plans in a file beside its code; where there is one already, both are brought together. */
export function keepPlans(store: Store, projectId: string): Agreed {
  const project = findProject(store, projectId);
  if (!project) throw noProject();
  if (project.folder === null)
    throw new Problem(
      'nothing-to-read-again',
      'No folder',
      'This project came as a file: there is no code beside which its plans could be kept.',
    );
  const file = path.join(project.folder, PLANS_FILE_NAME);
  if (textOf(file) === null) write(store, projectId, file, writePlansFile(decidedBy(store, projectId)));
  return agree(store, projectId);
}

function textOf(file: string): string | null {
  try {
    return fs.readFileSync(file, 'utf8');
  } catch {
    return null;
  }
}

/** Writes the file whole or not at all. */
function write(store: Store, projectId: string, file: string, text: string): void {
  const beside = `${file}.${process.pid}.part`;
  try {
    fs.writeFileSync(beside, text);
    fs.renameSync(beside, file);
  } catch (error) {
    fs.rmSync(beside, { force: true });
    throw new Problem(
      'file-not-written',
      'The plans can’t be written',
      `${PLANS_FILE_NAME}: ${(error as Error).message}`,
    );
  }
  updateKeptText(store, projectId, text);
}

function decidedBy(store: Store, projectId: string): Decided {
  const plans = listPlans(store, projectId).map(({ name, description, decisions, basedOn }) => ({
    ...{ name, description, decisions },
    ...(basedOn === null ? {} : { basedOn }),
  }));
  return { plans, amendments: amendmentsOf(store, projectId)!.amendments };
}

/** The plan without decisions with which a project begins is nobody's decision. */
function withoutEmpty({ plans, amendments }: Decided): Decided {
  return { plans: plans.filter((p) => p.decisions.length > 0), amendments };
}

/** Has a project decide what was brought together. Gives whether anything of it changes. */
function take(store: Store, projectId: string, { plans, amendments }: Decided): boolean {
  return store
    .transaction(() => {
      const stored = new Map(listPlans(store, projectId).map((p) => [p.name, p]));
      const wanted = plans.filter((p) => p.name !== BASELINE.name);
      let changed = false;
      for (const plan of wanted) {
        const old = stored.get(plan.name);
        stored.delete(plan.name);
        const next = { ...plan, basedOn: plan.basedOn ?? null };
        if (old && same(old, next)) continue;
        changed = true;
        put(store, projectId, old, next);
      }
      for (const { id, name } of stored.values()) {
        changed = true;
        deletePlan(store, id);
        renameOrigin(store, projectId, name, null);
      }
      if (wanted.length === 0) put(store, projectId, undefined, { ...FIRST_PLAN });
      const { version, amendments: before } = amendmentsOf(store, projectId)!;
      const { measured } = before;
      const next = { ...amendments, ...(measured === undefined ? {} : { measured }) };
      if (JSON.stringify(sorted(before)) !== JSON.stringify(sorted(next))) {
        changed = true;
        updateAmendments(store, projectId, version, next);
      }
      return changed;
    })
    .immediate();
}

const FIRST_PLAN = { name: 'First plan', description: '', decisions: [], basedOn: null };

type Content = Pick<StoredPlan, 'name' | 'description' | 'decisions' | 'basedOn'>;

const same = (a: Content, b: Content) =>
  a.description === b.description &&
  a.basedOn === b.basedOn &&
  JSON.stringify(a.decisions) === JSON.stringify(b.decisions);

const sorted = (of: object) => Object.entries(of).sort(([a], [b]) => (a < b ? -1 : 1));

function put(store: Store, projectId: string, old: StoredPlan | undefined, plan: Content): void {
  const changedAt = new Date().toISOString();
  if (old) updatePlan(store, { ...old, ...plan, version: old.version + 1, changedAt }, old.version);
  else insertPlan(store, { ...plan, id: randomUUID(), projectId, version: 1, changedAt });
}

/** So long after a change others may follow, in ms. */
const SETTLED_MS = 400;
const held = globalThis as typeof globalThis & { yokelineAgreeing?: Map<string, NodeJS.Timeout> };

/** Something was decided: the file beside the code is to say so, where there is one. `told`: hears what came of it. */
export function agreeSoon(
  store: () => Store,
  projectId: string,
  told: (agreed: Agreed | { trouble: string }) => void,
): void {
  held.yokelineAgreeing ??= new Map();
  clearTimeout(held.yokelineAgreeing.get(projectId));
  const timer = setTimeout(() => told(agreedOrTrouble(store, projectId)), SETTLED_MS);
  timer.unref();
  held.yokelineAgreeing.set(projectId, timer);
}

/** The same at once, with what goes wrong in words. */
export function agreedOrTrouble(store: () => Store, projectId: string): Agreed | { trouble: string } {
  try {
    return agree(store(), projectId);
  } catch (error) {
    // Nobody waits for it: what is thrown here would end the server.
    const { title, detail, more } = problemOf(error);
    return { trouble: `${title}. ${detail}${typeof more.at === 'string' ? ` (${more.at})` : ''}` };
  }
}
