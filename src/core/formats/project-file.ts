import { amend } from '../amend/amend.ts';
import { AMENDMENTS, type Amendments } from '../amend/types.ts';
import { InputError } from '../errors.ts';
import { eachOnce } from '../form/cross-checks.ts';
import { type Form, type Of, refined } from '../form/form.ts';
import { assumedOrNull, optional, record } from '../form/records.ts';
import { constant, listOf, mapOf, textUpTo } from '../form/values.ts';
import { PLAN, type Plan } from '../plan/types.ts';
import { shipped } from '../ship/shipped.ts';
import { SNAPSHOT } from '../snapshot/check.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { object } from '../text/fields.ts';
import { parseJson } from '../text/json.ts';

export const PROJECT_FORMAT = 'yokeline-project';
export const PROJECT_VERSION = 2;

/** Whichever version a file is of, it is taken as one of the newest. */
const VERSION: Form<number> = {
  check: (value, at) => {
    if (typeof value !== 'number' || !Number.isInteger(value) || value < 1)
      throw new InputError('Not a project file', 'Its version must be a whole number from 1.', at);
    if (value > PROJECT_VERSION)
      throw new InputError(
        'Project file of a newer version',
        `The file has version ${value}; this program reads up to ${PROJECT_VERSION}. Update the program, or write the file again with this one.`,
        at,
      );
    return PROJECT_VERSION;
  },
  schema: () => ({ type: 'integer', minimum: 1, maximum: PROJECT_VERSION }),
};

const TEXTS = mapOf(textUpTo(Number.POSITIVE_INFINITY));

/** A whole project in one file (`*.yokeline.json`). */
export const PROJECT_FILE = record({
  format: constant(PROJECT_FORMAT),
  version: VERSION,
  snapshot: SNAPSHOT,
  plans: refined(listOf(PLAN), withNamesOfTheirOwn),
  /** What a person corrected on what was read. */
  amendments: assumedOrNull(AMENDMENTS, {}),
  /** Minified text per module path, for exact sizes; may be left out. */
  texts: optional(TEXTS),
  /** Source text of the app's own scripts by path, for edits that are handed over; may be left out. */
  sources: optional(TEXTS),
});

export interface ProjectFile extends Omit<Of<typeof PROJECT_FILE>, 'snapshot' | 'plans' | 'amendments'> {
  snapshot: Snapshot;
  plans: Plan[];
  amendments: Amendments;
}

/** Refuses two plans of one name. */
export function withNamesOfTheirOwn(plans: readonly Plan[], at: string): void {
  eachOnce(
    plans.map((p) => p.name),
    (i, name) =>
      new InputError('Two plans with one name', `Rename one of the plans called ${name}.`, `${at}[${i}].name`),
  );
}

/**
 * Reads a project file. Throws InputError that names the file or the field: not JSON (with line and column), not a
 * project, a newer version than this program knows, or content that doesn't fit.
 */
export function parseProject(source: string, fileName: string): ProjectFile {
  const item = object(parseJson(source, fileName), fileName);
  if (item.format !== PROJECT_FORMAT) {
    throw new InputError(
      'Not a project file',
      `The file has no "format": "${PROJECT_FORMAT}". Make one with: yokeline read FOLDER --out FILE.`,
      fileName,
    );
  }
  // The version comes first: what else is in a newer file can't be judged.
  VERSION.check(item.version, `${fileName}: version`);
  return PROJECT_FILE.check(item, '');
}

/** The project's snapshot with its corrections, and as the plan ships it where one is given. */
export function studied(project: Pick<ProjectFile, 'snapshot' | 'amendments'>, plan?: Plan): Snapshot {
  const { snapshot } = amend(project.snapshot, project.amendments);
  return plan ? shipped(snapshot, plan).snapshot : snapshot;
}

/** A project as text of its file (docs/FORMAT.md), in the newest version. */
export function writeProject(project: ProjectFile): string {
  return `${JSON.stringify(project)}\n`;
}
