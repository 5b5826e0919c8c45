'use client';

import { useMemo, useState } from 'react';
import type { BreakEven, BreakEvenOver } from '../../../core/advise/break-even.ts';
import type { Remedy } from '../../../core/advise/types.ts';
import { subjectOf } from '../../../core/plan/decisions.ts';
import type { Plan } from '../../../core/plan/types.ts';
import { AsTable } from '../../parts/as-table.tsx';
import { percent, time } from '../../parts/format.ts';
import { LineChart } from '../../parts/line-chart/line-chart.tsx';
import { longWork } from '../../state/long-work.ts';
import { useAnswer } from '../../state/work.ts';
import { useConditions, usePlan } from '../../state/workbench.ts';
import { OverCrowds } from './crowd-gains.tsx';

const OVER: { id: BreakEvenOver; words: string; unit: (at: number) => string }[] = [
  {
    id: 'rate',
    words: 'link speed',
    unit: (at) => `${at >= 1000 ? `${+(at / 1000).toFixed(1)} Mbps` : `${Math.round(at)} kbps`}`,
  },
  { id: 'use', words: 'share of use', unit: percent },
  { id: 'hesitation', words: 'hesitation', unit: time },
];

/** At what link speed, share of use or hesitation a change starts to pay, with a slider over it. Asked for by opening it. */
export function PaysWhen({ remedy }: { remedy: Remedy }) {
  const [asked, setOver] = useState<BreakEvenOver | 'visitors' | null>(null);
  const plan = useWithout(remedy);
  const over = asked === 'visitors' ? null : asked;
  const { found, error } = useBreakEven(remedy, plan, over);
  const told = OVER.find((o) => o.id === over);
  return (
    <section className="mt-5 border-t border-line pt-3" aria-label="When it pays">
      <h3 className="mb-1 font-semibold">When does it pay?</h3>
      <fieldset className="flex flex-wrap gap-1" aria-label="Over what">
        {[...OVER, { id: 'visitors' as const, words: 'all visitors' }].map((o) => (
          <button
            key={o.id}
            type="button"
            aria-pressed={o.id === asked}
            onClick={() => setOver(o.id === asked ? null : o.id)}
            className={`rounded border px-1.5 py-0.5 whitespace-nowrap ${o.id === asked ? 'border-ink bg-mark font-medium' : 'border-line hover:border-ink'}`}
          >
            {o.words}
          </button>
        ))}
      </fieldset>
      {asked === 'visitors' ? <OverCrowds remedy={remedy} plan={plan} /> : null}
      {error ? (
        <p className="mt-2 text-worse" role="alert">
          {error}
        </p>
      ) : null}
      {over && found === undefined && !error ? (
        <p className="mt-2 text-soft">trying it over the {told?.words} …</p>
      ) : null}
      {found === null ? <p className="mt-2 text-soft">No use of the app is about what this changes.</p> : null}
      {found && told ? <Curve of={found} unit={told.unit} words={told.words} /> : null}
    </section>
  );
}

/** The plan without the change, where it has it already. */
function useWithout({ decisions }: Remedy): Plan {
  const plan = usePlan();
  const own = JSON.stringify(decisions.map(subjectOf));
  return useMemo(() => {
    const subjects = new Set(JSON.parse(own) as string[]);
    return { ...plan, decisions: plan.decisions.filter((d) => !subjects.has(subjectOf(d))) };
  }, [plan, own]);
}

function useBreakEven(
  remedy: Remedy,
  without: Plan,
  over: BreakEvenOver | null,
): { found: BreakEven | null | undefined; error: string | null } {
  const conditions = useConditions();
  const asked = over === null ? null : JSON.stringify([over, remedy]);
  return useAnswer(async () => {
    if (asked === null) return undefined;
    const [about, change] = JSON.parse(asked) as [BreakEvenOver, Remedy];
    return (await longWork()).advice.breakEven(without, change, conditions, about);
  }, [asked, without, conditions]);
}

function Curve({ of, unit, words }: { of: BreakEven; unit: (at: number) => string; words: string }) {
  const { points, crossings, now } = of;
  const [slid, setSlid] = useState<number | null>(null);
  const at = slid ?? points.findIndex((p) => p.at === now);
  const here = points[at];
  const pays = points.every((p) => p.gain > 0)
    ? 'It pays everywhere.'
    : points.every((p) => p.gain <= 0)
      ? 'It pays nowhere.'
      : '';
  return (
    <div className="mt-2">
      <LineChart
        height="h-32"
        rows={points.map((p) => ({ at: p.at, gain: p.gain }))}
        lines={[{ of: 'gain', name: 'gain', stroke: 'var(--needed)', width: 2, dots: 2 }]}
        across={{ of: 'at', write: unit, tickCount: 4, scale: of.over === 'rate' ? 'log' : 'linear' }}
        left={{ write: (gain) => (gain < 0 ? `−${time(-gain)}` : time(gain)) }}
        mark={{ at: here.at, quiet: true }}
        zero
      />
      <input
        type="range"
        className="mt-1 w-full"
        aria-label={`${words} at which it is looked at`}
        aria-valuetext={`${unit(here.at)}: ${gainWords(here.gain)}`}
        min={0}
        max={points.length - 1}
        step={1}
        value={at}
        onChange={(event) => setSlid(Number(event.target.value))}
      />
      <p>
        At {unit(here.at)}
        {here.at === now ? ' (as now)' : ''} it <span className="font-medium">{gainWords(here.gain)}</span> per visit.{' '}
        {crossings.length > 0
          ? `It ${points[0].gain > 0 ? 'ceases' : 'starts'} to pay at about ${unit(crossings[0])}.`
          : pays}
      </p>
      <AsTable heads={[words, 'saves a visit']} rows={points.map((p) => [unit(p.at), gainWords(p.gain)])} />
    </div>
  );
}

function gainWords(gain: number): string {
  return Math.abs(gain) < 0.5 ? 'makes no difference' : gain > 0 ? `saves ${time(gain)}` : `costs ${time(-gain)}`;
}
