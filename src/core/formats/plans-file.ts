import { AMENDMENTS, type Amendments } from '../amend/types.ts';
import { InputError } from '../errors.ts';
import type { Of } from '../form/form.ts';
import { refined } from '../form/form.ts';
import { assumedOrNull, optional, record } from '../form/records.ts';
import { constant, listOf } from '../form/values.ts';
import { LIMIT } from '../limits/types.ts';
import { PLAN, type Plan } from '../plan/types.ts';
import { object } from '../text/fields.ts';
import { parseJson } from '../text/json.ts';
import { withNamesOfTheirOwn } from './project-file.ts';

/** The file beside an app's code in which what was decided about it is kept, and reviewed like code. */
export const PLANS_FILE_NAME = 'yokeline.plan.json';
export const PLANS_FORMAT = 'yokeline-plans';
const PLANS_VERSION = 1;

/**
 * What a person decided about an app: plans, limits, and corrections to what is read. Not what was measured on one machine: that is no
 * decision, and nobody could review it.
 */
export const PLANS_FILE = record({
  format: constant(PLANS_FORMAT),
  version: constant(PLANS_VERSION),
  plans: refined(listOf(PLAN), withNamesOfTheirOwn),
  limits: optional(listOf(LIMIT)),
  corrections: assumedOrNull(AMENDMENTS, {}),
});
export type PlansFile = Of<typeof PLANS_FILE>;

/** What of a project is kept beside the code. */
export interface Decided {
  plans: readonly Plan[];
  /** Without what was measured. */
  amendments: Amendments;
}

/** Reads the file; throws InputError naming the file or the field. */
export function parsePlansFile(source: string, fileName: string): Decided {
  const item = object(parseJson(source, fileName), fileName);
  if (item.format !== PLANS_FORMAT)
    throw new InputError(
      'Not a file of plans',
      `It has no "format": "${PLANS_FORMAT}". Have it written with: yokeline keep FILE --in FOLDER.`,
      fileName,
    );
  if (item.version !== PLANS_VERSION)
    throw new InputError(
      'A file of plans of another version',
      `This program reads version ${PLANS_VERSION}. Write the file again with this one.`,
      `${fileName}: version`,
    );
  try {
    const { plans, limits, corrections } = PLANS_FILE.check(item, '');
    const { measured: _, ...amendments } = corrections as Amendments;
    return { plans, amendments: { ...amendments, ...(limits ? { limits } : {}) } };
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    throw new InputError(error.title, error.detail, `${fileName}: ${error.at ?? ''}`);
  }
}

/** The text of the file: always the same for the same decisions, each of them on a line of its own. */
export function writePlansFile({ plans, amendments }: Decided): string {
  const { limits = [], measured: _, ...corrections } = amendments;
  const parts = [
    ` "format": ${JSON.stringify(PLANS_FORMAT)}`,
    ` "version": ${PLANS_VERSION}`,
    ` "plans": ${list(plans.map(planText), 1)}`,
    ...(limits.length > 0 ? [` "limits": ${list(limits.map(line), 1)}`] : []),
    ` "corrections": ${fieldsText(corrections)}`,
  ];
  return `{\n${parts.join(',\n')}\n}\n`;
}

function planText({ name, description, basedOn, decisions }: Plan): string {
  const fields = [
    `"name": ${JSON.stringify(name)}`,
    `"description": ${JSON.stringify(description)}`,
    ...(basedOn === undefined || basedOn === null ? [] : [`"basedOn": ${JSON.stringify(basedOn)}`]),
    `"decisions": ${list(decisions.map(line), 3)}`,
  ];
  return `{\n   ${fields.join(',\n   ')}\n  }`;
}

/** The fields of an object, each on a line; lists in it with each item on a line. */
function fieldsText(of: object): string {
  const known = Object.entries(of).filter(([, value]) => value !== undefined);
  if (known.length === 0) return '{}';
  const text = (value: unknown) => (Array.isArray(value) ? list(value.map(line), 2) : line(value));
  return `{\n${known.map(([key, value]) => `  ${JSON.stringify(key)}: ${text(value)}`).join(',\n')}\n }`;
}

function list(items: readonly string[], depth: number): string {
  if (items.length === 0) return '[]';
  const inner = ' '.repeat(depth + 1);
  return `[\n${items.map((i) => `${inner}${i}`).join(',\n')}\n${' '.repeat(depth)}]`;
}

/** A value on one line, with a space after each comma and colon outside of texts. */
function line(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(line).join(', ')}]`;
  if (typeof value !== 'object' || value === null) return JSON.stringify(value);
  const fields = Object.entries(value).filter(([, v]) => v !== undefined);
  if (fields.length === 0) return '{}';
  return `{ ${fields.map(([key, v]) => `${JSON.stringify(key)}: ${line(v)}`).join(', ')} }`;
}
