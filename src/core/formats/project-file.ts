import { amend } from '../amend/amend.ts';
import { checkAmendments } from '../amend/check.ts';
import type { Amendments } from '../amend/types.ts';
import { InputError } from '../errors.ts';
import { checkPlan } from '../plan/check.ts';
import type { Plan } from '../plan/types.ts';
import { shipped } from '../ship/shipped.ts';
import { checkSnapshot } from '../snapshot/check.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { list, object, text } from '../text/fields.ts';
import { parseJson } from '../text/json.ts';

export const PROJECT_FORMAT = 'yokeline-project';
export const PROJECT_VERSION = 2;

/** A whole project in one file (`*.yokeline.json`). */
export interface ProjectFile {
  format: typeof PROJECT_FORMAT;
  version: number;
  snapshot: Snapshot;
  plans: Plan[];
  /** What a person corrected on what was read. */
  amendments: Amendments;
  /** Minified text per module path, for exact sizes; may be left out. */
  texts?: Record<string, string>;
  /** Source text of the app's own scripts by path, for edits that are handed over; may be left out. */
  sources?: Record<string, string>;
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
  if (typeof item.version !== 'number' || !Number.isInteger(item.version) || item.version < 1) {
    throw new InputError('Not a project file', 'Its version must be a whole number from 1.', `${fileName}: version`);
  }
  if (item.version > PROJECT_VERSION) {
    throw new InputError(
      'Project file of a newer version',
      `The file has version ${item.version}; this program reads up to ${PROJECT_VERSION}. Update the program, or write the file again with this one.`,
      `${fileName}: version`,
    );
  }
  const plans = list(item.plans, 'plans').map((p, i) => checkPlan(p, `plans[${i}]`));
  const names = new Set<string>();
  plans.forEach((p, i) => {
    if (names.has(p.name))
      throw new InputError('Two plans with one name', `Rename one of the plans called ${p.name}.`, `plans[${i}].name`);
    names.add(p.name);
  });
  return {
    format: PROJECT_FORMAT,
    version: PROJECT_VERSION,
    snapshot: checkSnapshot(item.snapshot, 'snapshot'),
    plans,
    amendments: checkAmendments(item.amendments ?? {}, 'amendments'),
    ...(item.texts === undefined ? {} : { texts: checkTexts(item.texts, 'texts') }),
    ...(item.sources === undefined ? {} : { sources: checkTexts(item.sources, 'sources') }),
  };
}

function checkTexts(value: unknown, field: string): Record<string, string> {
  const item = object(value, field);
  for (const [path, content] of Object.entries(item)) text(content, `${field}["${path}"]`, Number.POSITIVE_INFINITY);
  // Without a prototype, a module called `constructor` has no text but its own.
  return Object.assign(Object.create(null), item);
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
