'use client';

import type { Remedy } from '../../../core/advise/types.ts';
import type { CrowdGains } from '../../../core/choose/gains-over.ts';
import type { Plan } from '../../../core/plan/types.ts';
import { percent, time } from '../../parts/format.ts';
import { CROWDS, crowdsOf, useCrowds } from '../../state/expectation.ts';
import { longWork } from '../../state/long-work.ts';
import { useAnswer } from '../../state/work.ts';

/** What a change saves all visitors, by the conditions that they come with. */
export function OverCrowds({ remedy, plan }: { remedy: Remedy; plan: Plan }) {
  const weights = useCrowds((s) => s.weights);
  const asked = JSON.stringify(remedy);
  const { found, error } = useAnswer(async (): Promise<CrowdGains> => {
    const worker = await longWork();
    return worker.advice.gainOver(plan, JSON.parse(asked) as Remedy, crowdsOf(weights));
  }, [asked, plan, weights]);
  if (CROWDS.every((c) => !(weights[c.id] > 0)))
    return <p className="mt-2 text-soft">Nobody comes: give some visitors a weight under Visits › All visitors.</p>;
  if (error)
    return (
      <p className="mt-2 text-worse" role="alert">
        {error}
      </p>
    );
  if (!found) return <p className="mt-2 text-soft">trying it for all visitors …</p>;
  return (
    <table className="mt-2 w-full">
      <thead className="sr-only">
        <tr>
          <th>visitors</th>
          <th>share</th>
          <th>saves a visit</th>
        </tr>
      </thead>
      <tbody>
        {found.crowds.map((c) => (
          <tr key={c.name} className="border-t border-line">
            <th className="py-0.5 text-left font-normal">{c.name}</th>
            <td className="text-right text-soft">{percent(c.share)}</td>
            <Gain value={c.gain} />
          </tr>
        ))}
        <tr className="border-t border-ink font-medium">
          <th className="py-0.5 text-left font-medium">all of them</th>
          <td />
          <Gain value={found.gain} />
        </tr>
      </tbody>
    </table>
  );
}

function Gain({ value }: { value: number }) {
  if (Math.abs(value) < 0.5) return <td className="text-right text-soft">same</td>;
  return (
    <td className={`text-right ${value > 0 ? 'text-better' : 'text-worse'}`}>
      {value > 0 ? '▾' : '▴'} {time(Math.abs(value))}
    </td>
  );
}
