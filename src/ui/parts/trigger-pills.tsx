import { type Trigger, triggerWords } from '../../core/vocabulary/triggers.ts';
import { Pill } from './pill.tsx';
import { TRIGGERS } from './triggers.ts';

/** The moments at which something can be fetched, the present one among them in any case. */
export function TriggerPills({ now, onPick }: { now: Trigger; onPick: (trigger: Trigger) => void }) {
  const current = triggerWords(now);
  const all = TRIGGERS.some((t) => triggerWords(t) === current) ? TRIGGERS : [now, ...TRIGGERS];
  return (
    <div className="flex flex-wrap gap-1.5">
      {all.map((trigger) => (
        <Pill key={triggerWords(trigger)} on={triggerWords(trigger) === current} onClick={() => onPick(trigger)}>
          {triggerWords(trigger)}
        </Pill>
      ))}
    </div>
  );
}
