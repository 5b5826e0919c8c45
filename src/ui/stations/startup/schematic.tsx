'use client';

import type { RevealState } from '../../../core/sim/types.ts';
import type { LandingView } from '../../../worker/views.ts';
import { time } from '../../parts/format.ts';
import { useStartupView } from '../../state/startup-view.ts';

type Seen = RevealState | 'blank';

const LOOKS: Record<Seen, string> = {
  blank: 'border-dashed border-line text-ink',
  'stand-in': 'border-line bg-[repeating-linear-gradient(135deg,var(--line)_0_2px,transparent_2px_5px)] text-ink',
  shown: 'border-line bg-[var(--needed-pale)]',
  'in font': 'border-line bg-[var(--needed-pale)]',
  filled: 'border-needed bg-[var(--needed-pale)]',
  answering: 'border-needed bg-needed text-on-ink',
  failed: 'border-dashed border-worse text-ink',
  gone: 'border-dashed border-line text-ink',
};

const WORDS: Record<Seen, string> = {
  blank: 'not there',
  'stand-in': 'placeholder',
  shown: 'shown',
  'in font': 'shown in its font',
  filled: 'shown, filled',
  answering: 'answers',
  failed: 'failed',
  gone: 'gone',
};

/** The screen at one instant, its parts in place; the instant follows a scrubber. */
export function Schematic({ view }: { view: LandingView }) {
  const at = useStartupView((s) => s.at);
  const end = Math.max(view.milestones.interactive || 0, view.milestones.firstScreenComplete || 0, 100) * 1.1;
  const now = Math.min(end, at ?? view.milestones.interactive);
  const seen = (part: number): Seen => {
    let state: Seen = 'blank';
    for (const r of view.timeline.reveals) if (r.part === part && r.at <= now + 0.01) state = r.state;
    return state;
  };
  const of = (place: string) =>
    view.parts.flatMap((p, i) => (p.place === place && p.id !== 'shell' && p.id !== 'page' ? [i] : []));
  const shell = view.parts.findIndex((p) => p.id === 'shell');
  const page = view.parts.findIndex((p) => p.id === 'page');
  return (
    <section className="mt-5 border-t border-line pt-4">
      <h2 className="font-semibold">The screen at {time(now)}</h2>
      <input
        type="range"
        aria-label="Instant at which the screen is shown"
        aria-valuetext={time(now)}
        min={0}
        max={Math.ceil(end)}
        step={10}
        value={Math.round(now)}
        onChange={(event) => useStartupView.setState({ at: Number(event.target.value) })}
        className="mt-1 w-full accent-[var(--needed)]"
      />
      <div className="mx-auto mt-2 flex w-[190px] flex-col gap-1 rounded-md border-2 border-ink p-1.5">
        {shell >= 0 ? <Box view={view} part={shell} state={seen(shell)} /> : null}
        {page >= 0 ? (
          <div
            className={`rounded border p-1 ${LOOKS[seen(page)].replace('bg-needed text-on-ink', 'bg-[var(--needed-pale)]')}`}
          >
            <span className="block truncate text-[11px]">
              {view.parts[page].name}: {WORDS[seen(page)]}
            </span>
            <div className="mt-1 grid gap-1">
              {of('first screen').map((p) => (
                <Box key={p} view={view} part={p} state={seen(p)} />
              ))}
            </div>
          </div>
        ) : null}
        <span className="border-t border-dashed border-ink pt-0.5 text-center text-[10px] text-soft">
          end of the first screen
        </span>
        {of('below').map((p) => (
          <Box key={p} view={view} part={p} state={seen(p)} />
        ))}
      </div>
      {view.readout.moves > 0 ? (
        <p className="mt-2 text-worse">
          {view.readout.moves === 1 ? '1 part pushes' : `${view.readout.moves} parts push`} others aside: no room is
          kept until {view.readout.moves === 1 ? 'it comes' : 'they come'}. A placeholder or reserved space keeps it.
        </p>
      ) : null}
    </section>
  );
}

function Box({ view, part, state }: { view: LandingView; part: number; state: Seen }) {
  return (
    <div
      title={`${view.parts[part].name}: ${WORDS[state]}`}
      className={`flex h-6 items-center justify-between gap-2 overflow-hidden rounded-sm border px-1.5 text-[11px] ${LOOKS[state]}`}
    >
      <span className="truncate">{view.parts[part].name}</span>
      <span className="shrink-0 text-[10px]">{state === 'blank' ? '' : WORDS[state]}</span>
    </div>
  );
}
