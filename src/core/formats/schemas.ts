import { type JsonSchema, schemaOf } from '../form/form.ts';
import { APP_NOTES, NOTES_FILE } from './app-notes.ts';
import { PLAN_FILE } from './plan-file.ts';
import { PLANS_FILE, PLANS_FILE_NAME } from './plans-file.ts';
import { PROJECT_FILE } from './project-file.ts';

const UNITS =
  'Sizes in bytes, times in milliseconds, paths relative to the folder that was read, with /. Fields that aren’t named here are left aside.';

const FILES = {
  project: {
    form: PROJECT_FILE,
    title: 'Yokeline project',
    description: `A whole project in one file (*.yokeline.json). ${UNITS}`,
  },
  plan: {
    form: PLAN_FILE,
    title: 'A plan by itself',
    description: `One plan of a project, for somebody who has the same app. ${UNITS}`,
  },
  plans: {
    form: PLANS_FILE,
    title: 'Plans beside the code',
    description: `What was decided about an app, kept beside its code as ${PLANS_FILE_NAME}. ${UNITS}`,
  },
  notes: {
    form: APP_NOTES,
    title: 'App notes',
    description: `What sources can’t tell of an app, kept beside them as ${NOTES_FILE}. ${UNITS}`,
  },
};

/** Names of the published schemas. */
export const SCHEMA_NAMES = Object.keys(FILES) as (keyof typeof FILES)[];

/** The file name of a schema. */
export function schemaFile(name: keyof typeof FILES): string {
  return `${name}.schema.json`;
}

/** The JSON Schema (2020-12) of a file that people bring or take, as its text. */
export function schemaText(name: keyof typeof FILES): string {
  const { form, title, description } = FILES[name];
  const schema: JsonSchema = schemaOf(form, { $id: `yokeline/${schemaFile(name)}`, title, description });
  return `${inShortLines(JSON.stringify(schema, null, 1))}\n`;
}

/** Puts objects and lists that hold no other ones into one line. */
function inShortLines(json: string): string {
  return json.replace(/[{[]\n[^{}[\]]+[}\]]/g, (piece) => {
    const line = piece.replace(/\n\s*/g, ' ');
    return line.length <= 100 ? line : piece;
  });
}
