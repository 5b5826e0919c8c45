'use client';

import { useState } from 'react';
import { create } from 'zustand';
import { BASELINE } from '../../core/plan/types.ts';
import { DEVICES, LINKS } from '../../core/sim/conditions.ts';
import type { Expectation } from '../../core/visitors/expect.ts';
import type { Variant } from '../../core/visitors/reckon.ts';
import { longWork } from './long-work.ts';
import { fitOf, type Subject, useSubject } from './subject.ts';
import { useWork } from './work.ts';
import { usePlan } from './workbench.ts';

/** Sets of conditions that visitors come with; weights in any unit, 0 leaves one out. */
export const CROWDS = [
  {
    id: 'crowded-phone',
    name: 'Crowded cell, everyday phone',
    link: 'crowded-cell',
    device: 'everyday-phone',
    weight: 50,
  },
  { id: 'clear-phone', name: 'Clear cell, everyday phone', link: 'clear-cell', device: 'everyday-phone', weight: 30 },
  { id: 'edge-old', name: 'Edge of coverage, worn phone', link: 'edge-of-coverage', device: 'worn-phone', weight: 0 },
  { id: 'wifi-tablet', name: 'Shared Wi-Fi, tablet', link: 'shared-wifi', device: 'tablet', weight: 0 },
  { id: 'cable-laptop', name: 'Home line, laptop', link: 'home-line', device: 'laptop', weight: 20 },
] as const;

export const useCrowds = create<{ weights: Record<string, number> }>()(() => ({
  weights: Object.fromEntries(CROWDS.map((c) => [c.id, c.weight])),
}));

export interface ExpectationState {
  now: Expectation | null;
  baseline: Expectation | null;
  /** Share of the work that is done, 0 to 1; 1 when there is none left. */
  done: number;
  error: string | null;
}

/** The sets of conditions that visitors come with, by their weights; shares add up to 1. */
export function crowdsOf(weights: Record<string, number>): (Variant & { name: string })[] {
  const all = CROWDS.reduce((sum, c) => sum + (weights[c.id] ?? 0), 0);
  return CROWDS.filter((c) => (weights[c.id] ?? 0) > 0).map((c) => ({
    name: c.name,
    conditions: {
      link: LINKS.find((l) => l.id === c.link)!,
      device: DEVICES.find((d) => d.id === c.device)!,
      cache: 'empty',
    },
    share: (weights[c.id] ?? 0) / all,
  }));
}

/** What all visitors can expect, of the plan and of the baseline; `stopped` leaves it as far as it is. */
export function useExpectation(stopped: boolean): ExpectationState {
  const plan = usePlan();
  const subject = useSubject();
  const { app, planId, decisions } = subject;
  const weights = useCrowds((s) => s.weights);
  const [{ of, ...state }, setState] = useState<ExpectationState & { of: Subject | null }>({ ...NOTHING, of: null });
  // The plan's decisions are what counts; the crowds have conditions of their own.
  useWork(
    async (wanted) => {
      if (stopped) return;
      const variants = crowdsOf(weights).map(({ conditions, share }) => ({ conditions, share }));
      if (variants.length === 0) {
        setState({
          now: null,
          baseline: null,
          done: 1,
          error: 'Give at least one set of conditions a weight above 0.',
          of: subject,
        });
        return;
      }
      setState((s) => ({ ...s, done: 0, error: null }));
      const worker = await longWork();
      const same = plan.decisions.length === 0;
      const found: Partial<Record<'now' | 'baseline', Expectation>> = {};
      for (const of of same ? (['now'] as const) : (['now', 'baseline'] as const)) {
        const begun = of === 'now' ? 0 : 0.5;
        while (wanted() && !found[of]) {
          const step = await worker.visits.expect(of === 'now' ? plan : BASELINE, variants);
          if (!wanted()) return;
          if (step.result) found[of] = step.result;
          setState((s) => ({ ...s, ...found, of: subject, done: begun + (step.done / step.of) * (same ? 1 : 0.5) }));
        }
      }
      if (wanted())
        setState({ now: found.now!, baseline: found.baseline ?? found.now!, done: 1, error: null, of: subject });
    },
    (error) => setState({ ...NOTHING, done: 1, error: error.message, of: subject }),
    [app, planId, decisions, weights, stopped],
  );
  return fitOf(of, subject, []) === 'other' ? { ...NOTHING, done: of === null ? state.done : 0 } : state;
}

const NOTHING: ExpectationState = { now: null, baseline: null, done: 0, error: null };
