'use client';

import { useId, useState } from 'react';
import { type Trigger, triggerWords } from '../../core/vocabulary/triggers.ts';
import { Pill } from './pill.tsx';
import { ASKED_MOMENTS, momentFrom, TRIGGERS } from './triggers.ts';

/** The moments at which something can be fetched, the present one among them in any case. */
export function TriggerPills({ now, onPick }: { now: Trigger; onPick: (trigger: Trigger) => void }) {
  const [asking, setAsking] = useState(false);
  const current = triggerWords(now);
  const all = TRIGGERS.some((t) => triggerWords(t) === current) ? TRIGGERS : [now, ...TRIGGERS];
  return (
    <>
      <div className="flex flex-wrap gap-1.5">
        {all.map((trigger) => (
          <Pill key={triggerWords(trigger)} on={triggerWords(trigger) === current} onClick={() => onPick(trigger)}>
            {triggerWords(trigger)}
          </Pill>
        ))}
        <button
          type="button"
          aria-expanded={asking}
          onClick={() => setAsking(!asking)}
          className="px-1 text-soft underline decoration-dotted underline-offset-2 hover:text-ink"
        >
          another moment
        </button>
      </div>
      {asking ? (
        <OtherMoment
          onPick={(trigger) => {
            setAsking(false);
            onPick(trigger);
          }}
        />
      ) : null}
    </>
  );
}

const FIELD = 'h-7 rounded border border-line bg-paper px-2';

/** Asks what has to be said of a moment: how long after, on which event, on which screens. */
function OtherMoment({ onPick }: { onPick: (trigger: Trigger) => void }) {
  const id = useId();
  const [at, setAt] = useState(0);
  const [written, setWritten] = useState<Record<string, string>>({});
  const [trouble, setTrouble] = useState<string | null>(null);
  const asked = ASKED_MOMENTS[at];
  const take = () => {
    const found = momentFrom(asked, written);
    if (typeof found === 'string') setTrouble(found);
    else onPick(found);
  };
  return (
    <div className="mt-2 rounded border border-line p-2">
      <div className="flex flex-wrap items-end gap-2">
        <select
          aria-label="Which moment"
          value={at}
          onChange={(event) => {
            setAt(Number(event.target.value));
            setTrouble(null);
          }}
          className={FIELD}
        >
          {ASKED_MOMENTS.map(({ words }, n) => (
            <option key={words} value={n}>
              {words}
            </option>
          ))}
        </select>
        {asked.fields.map(({ key, label, isNumber }) => (
          <label key={key} className="text-xs text-soft">
            {label}
            <input
              value={written[key] ?? ''}
              inputMode={isNumber ? 'numeric' : 'text'}
              spellCheck={false}
              aria-describedby={trouble ? `${id}-trouble` : undefined}
              onChange={(event) => {
                setWritten({ ...written, [key]: event.target.value });
                setTrouble(null);
              }}
              onKeyDown={(event) => {
                if (event.key !== 'Enter') return;
                event.preventDefault();
                take();
              }}
              className={`${FIELD} block text-[13px] text-ink ${isNumber ? 'w-24' : 'w-44'}`}
            />
          </label>
        ))}
        <button type="button" onClick={take} className="h-7 rounded border border-soft px-2.5 hover:border-ink">
          Choose
        </button>
      </div>
      {trouble ? (
        <p id={`${id}-trouble`} role="alert" className="mt-1 text-worse">
          {trouble}
        </p>
      ) : null}
    </div>
  );
}
