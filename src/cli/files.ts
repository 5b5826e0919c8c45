import fs from 'node:fs';
import { InputError } from '../core/errors.ts';
import { type ProjectFile, parseProject, writeProject } from '../core/formats/project-file.ts';
import { BASELINE, type Plan } from '../core/plan/types.ts';
import type { Route } from '../core/snapshot/route-types.ts';
import type { Snapshot } from '../core/snapshot/types.ts';

/** Reads a project file from disk. */
export function readProject(file: string): ProjectFile {
  const text = readText(file, 'Check the path; make a project file with: yokeline read FOLDER --out FILE.');
  return parseProject(text, file);
}

/** The text of a file; throws InputError with what to do when it can't be read. */
export function readText(file: string, whatToDo: string): string {
  try {
    return fs.readFileSync(file, 'utf8');
  } catch {
    throw new InputError('No such file', whatToDo, file);
  }
}

export function saveProject(file: string, project: ProjectFile): void {
  writeFile(file, writeProject(project));
}

/** Writes a file whole or not at all: beside its place first, then moved there. */
export function writeFile(file: string, text: string): void {
  const beside = `${file}.part`;
  try {
    fs.writeFileSync(beside, text);
    fs.renameSync(beside, file);
  } catch (error) {
    fs.rmSync(beside, { force: true });
    throw new InputError('The file can’t be written', (error as Error).message, file);
  }
}

/** A plan of the project by its name; the baseline when none is named. */
export function planNamed(project: { plans: readonly Plan[] }, name: string | undefined): Plan {
  if (name === undefined || name === BASELINE.name) return BASELINE;
  const plan = project.plans.find((p) => p.name === name);
  if (plan) return plan;
  const known = project.plans.map((p) => p.name).join(', ') || 'no plans but the baseline';
  throw new InputError('No such plan', `The file has ${known}.`, `--plan ${name}`);
}

/** A route of the snapshot by its pattern. */
export function routeNamed(snapshot: Snapshot, pattern: string): Route {
  const route = snapshot.routes.find((r) => r.pattern === pattern);
  if (route) return route;
  const known = snapshot.routes.map((r) => r.pattern).join(', ') || 'none';
  throw new InputError('No such route', `The snapshot has these routes: ${known}.`, `--route ${pattern}`);
}
