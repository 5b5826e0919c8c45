import fs from 'node:fs';
import { joinStore } from '../store/database.ts';
import { inputOf, ProjectInput } from './inputs.ts';
import type { Problem } from './problem.ts';
import { problemOf } from './problems.ts';
import { importProject } from './projects.ts';

/** A body that lies in a file, and the database that its project goes into. */
interface ImportOrder {
  body: string;
  database: string;
}

export type ImportAnswer = { id: string } | Pick<Problem, 'code' | 'title' | 'detail' | 'more'>;

function answer({ body, database }: ImportOrder): ImportAnswer {
  try {
    const { fileName, text } = inputOf(fs.readFileSync(body, 'utf8'), ProjectInput);
    const store = joinStore(database);
    try {
      return { id: importProject(store, fileName, text) };
    } finally {
      store.close();
    }
  } catch (error) {
    const { code, title, detail, more } = problemOf(error);
    return { code, title, detail, more };
  }
}

const [body, database] = process.argv.slice(2);
process.send?.(answer({ body, database }));
process.disconnect?.();
