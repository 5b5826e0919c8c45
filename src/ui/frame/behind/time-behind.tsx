'use client';

import { criticalChain, whereTheTimeWent } from '../../../core/metrics/critical-chain.ts';
import type { LandingView } from '../../../worker/views.ts';
import { CHAIN_LOOKS } from '../../parts/chain-looks.ts';
import { useConditions } from '../../state/workbench.ts';
import { Rows } from './rows.tsx';

/** So many are named of what a kind of time went to; Startup has all of them. */
const NOTED = 3;

/** What a time of a landing is made of, along the chain that decides it. */
export function TimeBehind({ view, of }: { view: LandingView; of: 'firstContent' | 'interactive' }) {
  const { link } = useConditions();
  const at = view.milestones[of];
  const chain =
    of === 'interactive'
      ? view.chain
      : criticalChain(view.timeline, view.timeline.moments.firstContentCause, at, link.rttMs);
  const spent = whereTheTimeWent(chain).filter((s) => s.ms >= 0.5);
  return (
    <>
      <h2 className="font-semibold">{of === 'interactive' ? 'Until interactive' : 'Until first content'}</h2>
      <p className="mb-2 text-[11px] text-soft">along the chain of requests and work that decides it</p>
      {Number.isFinite(at) ? (
        <Rows
          rows={spent.map(({ kind, ms, by }) => ({
            key: kind,
            colour: CHAIN_LOOKS[kind].colour,
            words: kind === 'browser' ? 'browser’s own work' : kind,
            note: `${by
              .slice(0, NOTED)
              .map((b) => b.what)
              .join(', ')}${by.length > NOTED ? ` and ${by.length - NOTED} more` : ''}`,
            title: CHAIN_LOOKS[kind].words,
            value: `${Math.round(ms)} ms`,
          }))}
          sum={`${Math.round(at)} ms`}
        />
      ) : (
        <p className="text-soft">It never comes to that: something that it waits for isn’t asked for on a landing.</p>
      )}
    </>
  );
}
