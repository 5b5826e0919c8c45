import path from 'node:path';
import { textIfThere } from '../folder-files.ts';
import type { AroundScript } from '../graph/script-said.ts';
import { pathFrom } from '../path-from.ts';
import type { Compiling } from '../script/compiling.ts';
import type { AddedAsked, LeftAsked, SizesAsked } from './left-asked.ts';

/** What a thread is handed that finds out what scripts say. */
export interface AheadWork {
  root: string;
  /** Scripts, by their paths from the root. */
  files: string[];
  compiling: Compiling;
  /** Where each of the files stands: one of the numbers below. */
  states: Int32Array;
  /** With which of the files the thread begins. */
  from: number;
}

/** What a thread is handed next: texts of style sheets. */
export interface SheetsWork {
  kind: 'sheets';
  texts: readonly string[];
}

/** What a thread is handed later: scripts of which something will be left. */
export interface LeftWork {
  kind: 'left';
  /** Its share. */
  asked: LeftAsked[];
  /** Where each script of all shares stands. */
  states: Int32Array;
  /** Where its share begins among them. */
  from: number;
  /** Whether it finds out as well which names they mention. */
  mentions: boolean;
}

/** What a thread is handed then: texts that nobody has weighed. */
export interface SizesWork {
  kind: 'sizes';
  /** Its share. */
  asked: SizesAsked[];
  /** Where each text of all shares stands. */
  states: Int32Array;
  /** Where its share begins among them. */
  from: number;
}

/** What a thread is handed at the end: what texts add to a file of many. */
export interface AddedWork extends AddedAsked {
  kind: 'added';
  /** So many of the texts come before its share. */
  before: number;
  /** Where each text stands, first what it adds after those before it, then what it adds where none is near; after them each run. */
  states: Int32Array;
  /** Where its share begins among all texts, and how many there are. */
  from: number;
  of: number;
  /** Where the runs of its share begin among all runs. */
  firstRun: number;
}

/** Nobody has taken a script up. */
export const OPEN = 0;
/** The reading does it itself. */
export const TAKEN = 1;
/** A thread is at it. */
export const BEGUN = 2;
/** A thread has told what it found. */
export const DONE = 3;

export type LaterWork = SheetsWork | LeftWork | SizesWork | AddedWork;

/** What is around a script of an app without components or exports that a framework deals with. */
export function aroundScript(root: string, file: string, compiling: Compiling): AroundScript {
  const folder = path.dirname(path.join(root, file));
  const resource = (specifier: string) => {
    const full = path.resolve(folder, specifier);
    const text = textIfThere(root, full);
    return text === null ? null : { path: pathFrom(root, full), text };
  };
  return { compiling, bindings: new Map(), without: [], resource };
}
