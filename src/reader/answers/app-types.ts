import path from 'node:path';
import type { Snapshot } from '../../core/snapshot/types.ts';
import { configuredAliases } from '../aliases.ts';
import { textIfThere } from '../folder-files.ts';
import { pathFrom } from '../path-from.ts';
import { realFolder, workspaceOf } from '../read-source.ts';
import { Resolver } from '../resolve.ts';
import { toldToBuilds } from '../script/environment.ts';
import { type AnswerShape, answerShapes } from './answer-shapes.ts';

/** What answers look like that a route of an app in a folder asks for, by their addresses. `snapshot`: what was read of it; `workspace`: the folder around it, as for reading. */
export function answersInFolder(
  folder: string,
  snapshot: Snapshot,
  pattern: string,
  workspace?: string,
): ReadonlyMap<string, AnswerShape> {
  const asked = snapshot.routes.find((r) => r.pattern === pattern)?.data ?? [];
  if (asked.length === 0) return new Map();
  const root = realFolder(folder);
  const bounds = workspace === undefined ? root : workspaceOf(root, workspace);
  const resolver = new Resolver({ root, bounds, aliases: configuredAliases(root) });
  const known = new Map(snapshot.imports.map((i) => [linkOf(snapshot.modules[i.from].path, i.specifier), i.to]));
  const textOf = (file: string) => textIfThere(bounds, path.resolve(root, file));
  const leadsTo = (from: string, specifier: string): string | null => {
    const read = known.get(linkOf(from, specifier));
    if (read !== undefined) return snapshot.modules[read].package === null ? snapshot.modules[read].path : null;
    const whole = path.resolve(root, from);
    for (const name of [specifier, `${specifier}.d.ts`]) {
      const found = resolver.resolve(whole, name, 'script');
      if ('path' in found && !found.path.includes('node_modules')) return pathFrom(root, found.path);
    }
    return null;
  };
  const own = snapshot.modules.filter((m) => m.package === null && m.kind === 'script').map((m) => m.path);
  return answerShapes(asked, new Set(own), { textOf, leadsTo, told: toldToBuilds(root) });
}

const linkOf = (from: string, specifier: string) => `${from}\n${specifier}`;
