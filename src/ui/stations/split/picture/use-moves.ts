'use client';

import { useState } from 'react';
import { type Band, type Block, START } from '../../../../core/outline/blocks/types.ts';
import type { Decision } from '../../../../core/plan/types.ts';
import type { Trigger } from '../../../../core/vocabulary/triggers.ts';
import { endTrial, tryOut, useTrial } from '../../../state/trial.ts';
import { usePlan, useWorkbench } from '../../../state/workbench.ts';
import type { PlacedBlock } from './layout.ts';

/** What can be moved between the start and later, with what that decides and its words. */
export interface Move {
  name: string;
  words: string;
  decisions: Decision[];
}

/** What a block is about, whatever is tried. */
export function subjectOfBlock({ block, from }: PlacedBlock): string {
  return `${from}\n${block.kind}\n${block.of}`;
}

/** What moving a block to the other side decides: out of the start it goes alone, into it all that its split point brings. */
export function moveOf({ block, from }: PlacedBlock, bands: readonly Band[]): Move | null {
  if (from === START) {
    if (block.decisions.length === 0) return null;
    return { name: block.name, words: `detach ${block.name}`, decisions: block.decisions };
  }
  const band = bands.find((b) => b.id === from);
  if (!band || band.joins.length === 0) return null;
  return { name: band.name, words: `join ${band.name}`, decisions: band.joins };
}

/** The same move, with the moment at which what goes is fetched. */
export function fetchedOn(move: Move, bands: readonly Band[], fetch: Trigger): Move {
  const begun = bands.filter((b) => b.isNew);
  const base = move.decisions.filter((d) => d.kind !== 'trigger');
  return {
    ...move,
    decisions: [...base, ...begun.map(({ id }): Decision => ({ kind: 'trigger', splitPoint: id, fetch }))],
  };
}

/** What is chosen and taken apart, and what can be done with it: looked at first, then decided. */
export function useMoves() {
  const take = useWorkbench((s) => s.take);
  const plan = usePlan();
  const trial = useTrial();
  const [open, setOpen] = useState<string[]>([]);
  const [chosen, setChosen] = useState<string | null>(null);
  /** What is tried of what is chosen. */
  const [move, setMove] = useState<Move | null>(null);
  const look = (next: Move) => {
    setMove(next);
    tryOut({ words: next.words, decisions: next.decisions }, plan);
  };
  const letGo = () => {
    setMove(null);
    endTrial();
  };
  return {
    open,
    setOpen,
    chosen,
    /** The move that is tried at present: another trial from elsewhere isn’t one. */
    tried: move !== null && trial?.remedy.decisions === move.decisions ? move : null,
    look,
    letGo,
    clear() {
      setChosen(null);
      letGo();
    },
    takeApart({ kind, of }: Block) {
      setChosen(null);
      letGo();
      setOpen([...open, `${kind} ${of}`]);
    },
    /** Looks at moving a block; a second time: as it is again. */
    choose(block: PlacedBlock, possible: Move | null) {
      const again = chosen === subjectOfBlock(block) && trial !== null;
      setChosen(subjectOfBlock(block));
      if (possible && !again) look(possible);
      else letGo();
    },
    decide(next: Move | null) {
      if (!next) return;
      take({ words: next.words, decisions: next.decisions });
      setChosen(null);
      setMove(null);
    },
  };
}

export type Moves = ReturnType<typeof useMoves>;
