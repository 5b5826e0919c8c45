'use client';

import { Slider } from 'radix-ui';
import type { Visit } from '../../../core/visits/types.ts';
import { analyst } from '../../../worker/client.ts';
import { AsTable } from '../../parts/as-table.tsx';
import { time } from '../../parts/format.ts';
import { useAsked } from '../../state/asked.ts';

const MOST_MS = 2400;
const WIDTH = 254;
const HEIGHT = 74;

/** From hover or focus to the act: a slider over the curve of the wait, so that what hesitation is worth is seen before it is tried. */
export function LeadSlider({
  visit,
  step,
  lead,
  touch,
  onTake,
}: {
  visit: Visit;
  step: number;
  lead: number;
  touch: boolean;
  onTake: (ms: number) => void;
}) {
  // The curve hangs on everything but the lead itself.
  const key = JSON.stringify({
    ...visit,
    steps: visit.steps.slice(0, step + 1).map((s, i) => (i === step ? { ...s, leadMs: 0 } : s)),
  });
  const { found, error } = useAsked((now) => analyst().visits.byLead(now.plan, visit, step, now.conditions), key);
  const known = found?.filter((p) => Number.isFinite(p.wait)) ?? [];
  const most = Math.max(100, ...known.map((p) => p.wait));
  const x = (ms: number) => (Math.min(ms, MOST_MS) / MOST_MS) * WIDTH;
  const y = (wait: number) => HEIGHT - 14 - (wait / most) * (HEIGHT - 30);
  const first = known[0]?.wait ?? 0;
  const last = known.at(-1)?.wait ?? 0;
  return (
    <section className="mt-4">
      <h3 className="mb-1 flex items-baseline justify-between font-semibold">
        From hover or focus to the act <span className="font-normal">{time(lead)}</span>
      </h3>
      <svg width={WIDTH} height={HEIGHT} className="block" aria-hidden="true">
        <title>wait by lead</title>
        <line x1={0} x2={WIDTH} y1={HEIGHT - 14} y2={HEIGHT - 14} stroke="var(--line)" />
        {known.length > 1 ? (
          <path
            d={`M${known.map((p) => `${x(p.lead)} ${y(p.wait)}`).join(' L')}`}
            fill="none"
            stroke="var(--on-demand)"
            strokeWidth="2"
          />
        ) : null}
        <line x1={x(lead)} x2={x(lead)} y1={8} y2={HEIGHT - 14} stroke="var(--ink)" strokeDasharray="3 3" />
        <text x={WIDTH} y={10} fontSize={11} textAnchor="end" fill="var(--soft)">
          wait, {time(most)} at most
        </text>
        <text x={WIDTH} y={HEIGHT - 2} fontSize={11} textAnchor="end" fill="var(--soft)">
          {time(MOST_MS)} lead
        </text>
        <text x={0} y={HEIGHT - 2} fontSize={11} fill="var(--soft)">
          at once
        </text>
      </svg>
      <Slider.Root
        min={0}
        max={MOST_MS}
        step={10}
        value={[Math.min(lead, MOST_MS)]}
        onValueChange={([ms]) => onTake(ms)}
        className="relative flex h-5 w-full touch-none items-center"
      >
        <Slider.Track className="relative h-[3px] grow bg-line">
          <Slider.Range className="absolute h-full bg-ink" />
        </Slider.Track>
        <Slider.Thumb
          aria-label="From hover or focus to the act, in ms"
          className="block size-3.5 rounded-full border-2 border-ink bg-sheet"
        />
      </Slider.Root>
      <p className="mt-1 text-soft">
        {touch
          ? 'On a touch screen nothing announces an act, so hovering ahead gains nothing.'
          : found === null
            ? (error ?? 'Playing it with other leads …')
            : first - last < 1
              ? 'Nothing is fetched on hover or focus, so the lead changes nothing.'
              : `At once ${time(first)}; with lead enough ${time(last)}.`}
      </p>
      {known.length > 1 ? (
        <AsTable heads={['lead', 'wait']} rows={known.map((k) => [time(k.lead), time(k.wait)])} />
      ) : null}
    </section>
  );
}
