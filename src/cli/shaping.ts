import { type Command, InvalidArgumentError } from 'commander';
import type { Decision, Match } from '../core/plan/types.ts';

interface ShapeOptions {
  gather: { name: string; match: Match }[];
  apart: Match[];
  together: string[];
  floor?: number;
  ceiling?: number;
  copyBelow?: number;
  grain?: boolean;
}

/** Adds the options that decide how modules are put into files. */
export function withShapeOptions(command: Command): Command {
  const many = <T>(read: (text: string) => T) => {
    return (text: string, before: T[]) => [...before, read(text)];
  };
  const what = 'package:NAME or a path pattern such as src/admin/**';
  return command
    .option('--gather <name=what>', `put into one chunk of that name: ${what}`, many(readGather), [])
    .option('--apart <what>', `share a chunk with no others: ${what}`, many(readMatch), [])
    .option('--together <paths>', 'modules that travel in one chunk, with commas between', many(String), [])
    .option('--floor <bytes>', 'merge chunks below this size (minified)', readBytes)
    .option('--ceiling <number>', 'ask for at most so many chunks per moment', readBytes)
    .option('--copy-below <bytes>', 'copy shared chunks below this size (minified) instead', readBytes)
    .option('--grain', 'one file per module');
}

/** The decisions that those options mean. */
export function shapesOf(options: ShapeOptions): Decision[] {
  return [
    ...options.gather.map((g): Decision => ({ kind: 'gather', ...g })),
    ...options.apart.map((match): Decision => ({ kind: 'apart', match })),
    ...options.together.map((t): Decision => ({ kind: 'together', modules: t.split(',').map((p) => p.trim()) })),
    ...(options.floor === undefined ? [] : [{ kind: 'floor', bytes: options.floor } as const]),
    ...(options.ceiling === undefined ? [] : [{ kind: 'ceiling', requests: Math.max(1, options.ceiling) } as const]),
    ...(options.copyBelow === undefined ? [] : [{ kind: 'copy', below: options.copyBelow } as const]),
    ...(options.grain ? [{ kind: 'grain' } as const] : []),
  ];
}

export type { ShapeOptions };

/** Reads `package:NAME` or a path pattern. */
export function readMatch(text: string): Match {
  const of = /^package:(.+)$/.exec(text)?.[1];
  return of === undefined ? { path: text } : { package: of };
}

function readGather(text: string): { name: string; match: Match } {
  const at = text.indexOf('=');
  if (at < 1 || at === text.length - 1)
    throw new InvalidArgumentError('Write it as NAME=package:PACKAGE or NAME=src/admin/**.');
  return { name: text.slice(0, at), match: readMatch(text.slice(at + 1)) };
}

function readBytes(text: string): number {
  const value = Number(text);
  if (!Number.isInteger(value) || value < 0) throw new InvalidArgumentError('Give a whole number of 0 or more.');
  return value;
}
