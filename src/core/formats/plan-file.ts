import { InputError } from '../errors.ts';
import type { Of } from '../form/form.ts';
import { record } from '../form/records.ts';
import { constant, TEXT, WHOLE } from '../form/values.ts';
import { PLAN, type Plan } from '../plan/types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { object } from '../text/fields.ts';
import { parseJson } from '../text/json.ts';

export const PLAN_FORMAT = 'yokeline-plan';
const PLAN_VERSION = 1;

/** A plan by itself, for somebody who has the same app. */
export const PLAN_FILE = record({
  format: constant(PLAN_FORMAT),
  version: constant(PLAN_VERSION),
  /** The app that it was made for: enough to notice another one. */
  app: record({ name: TEXT, modules: WHOLE, imports: WHOLE }),
  plan: PLAN,
});
export type PlanFile = Of<typeof PLAN_FILE>;

/** A plan as a file of its own, with what tells the app that it was made for (docs/FORMAT.md). */
export function writePlanFile(app: Pick<Snapshot, 'name' | 'modules' | 'imports'>, plan: Plan): string {
  const { name, description, decisions } = plan;
  const of = { name: app.name, modules: app.modules.length, imports: app.imports.length };
  const file = { format: PLAN_FORMAT, version: PLAN_VERSION, app: of, plan: { name, description, decisions } };
  return `${JSON.stringify(file, null, 1)}\n`;
}

/** Reads a plan file; throws InputError naming the file or the field. */
export function parsePlanFile(source: string, fileName: string): PlanFile {
  const item = object(parseJson(source, fileName), fileName);
  if (item.format !== PLAN_FORMAT)
    throw new InputError(
      'Not a plan file',
      `The file has no "format": "${PLAN_FORMAT}". Save one under Handoff, or with: yokeline export FILE --kind plan.`,
      fileName,
    );
  if (item.version !== PLAN_VERSION)
    throw new InputError(
      'Plan file of another version',
      `This program reads version ${PLAN_VERSION}. Write the file again with this one.`,
      `${fileName}: version`,
    );
  return PLAN_FILE.check(item, '');
}

/** The name under which a plan can stand beside others: its own, or with a number after it. */
export function freePlanName(name: string, taken: readonly string[]): string {
  if (!taken.includes(name)) return name;
  for (let n = 2; ; n++) if (!taken.includes(`${name} ${n}`)) return `${name} ${n}`;
}
