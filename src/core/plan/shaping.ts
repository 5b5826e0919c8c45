import { graphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { matcher, matchWords } from './match.ts';
import type { Shape } from './types.ts';

/** A plan's wishes about files, with modules by index. */
export interface Shaping {
  gather: { name: string; modules: Set<number> }[];
  together: Set<number>[];
  apart: Set<number>[];
  /** Minified bytes; 0: no floor. */
  floor: number;
  /** Chunks per moment; Infinity: no ceiling. */
  ceiling: number;
  /** Minified bytes; 0: nothing is copied. */
  copyBelow: number;
  eachModule: boolean;
  names: Map<string, string>;
}

/** Shaping by which files come as they come. */
export function noShaping(): Shaping {
  return {
    gather: [],
    together: [],
    apart: [],
    floor: 0,
    ceiling: Number.POSITIVE_INFINITY,
    copyBelow: 0,
    eachModule: false,
    names: new Map(),
  };
}

/** Whether a plan leaves the files as they come out by themselves. */
export function isUnshaped(s: Shaping): boolean {
  return (
    s.gather.length + s.together.length + s.apart.length === 0 &&
    s.floor === 0 &&
    s.ceiling === Number.POSITIVE_INFINITY &&
    s.copyBelow === 0 &&
    !s.eachModule
  );
}

/** Adds a decision about files. Gives what is wrong with it in this snapshot, in words; null when nothing is. */
export function addShape(shaping: Shaping, snapshot: Snapshot, shape: Shape): string | null {
  const { moduleAt } = graphIndex(snapshot);
  switch (shape.kind) {
    case 'gather':
    case 'apart': {
      const fits = matcher(shape.match);
      const modules = new Set<number>();
      snapshot.modules.forEach((m, i) => {
        if (fits(m)) modules.add(i);
      });
      if (modules.size === 0) return `no module matches ${matchWords(shape.match)}`;
      if (shape.kind === 'gather') shaping.gather.push({ name: shape.name, modules });
      else shaping.apart.push(modules);
      return null;
    }
    case 'together': {
      const lost = shape.modules.filter((path) => !moduleAt.has(path));
      shaping.together.push(new Set(shape.modules.flatMap((path) => moduleAt.get(path) ?? [])));
      return lost.length > 0 ? `no module ${lost.join(', ')} in this snapshot` : null;
    }
    case 'floor':
      shaping.floor = shape.bytes;
      return null;
    case 'ceiling':
      shaping.ceiling = shape.requests;
      return null;
    case 'copy':
      shaping.copyBelow = shape.below;
      return null;
    case 'grain':
      shaping.eachModule = true;
      return null;
    case 'chunk name':
      shaping.names.set(shape.chunk, shape.name);
      return null;
  }
}
