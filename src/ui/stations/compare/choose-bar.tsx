'use client';

import { BASELINE } from '../../../core/plan/types.ts';
import { DEVICES, LINKS } from '../../../core/sim/conditions.ts';
import { CACHE_STATES } from '../../../core/vocabulary/cache-states.ts';
import {
  type ConditionIds,
  conditionsWords,
  MOST_CONDITIONS,
  MOST_PLANS,
  nextConditions,
  useCompareChoice,
  useComparedConditions,
  useComparedPlans,
} from '../../state/compare.ts';
import { useWorkbench } from '../../state/workbench.ts';

const SELECT = 'rounded border border-line bg-sheet px-1 py-0.5';

/** Which plans stand beside one another, and under which conditions beside those at the top. */
export function ChooseBar() {
  return (
    <div className="grid gap-2 border-b border-line px-4 pt-3 pb-3">
      <Plans />
      <UnderConditions />
    </div>
  );
}

function Plans() {
  const stored = useWorkbench((s) => s.project?.plans) ?? [];
  const chosen = useComparedPlans().map((p) => p.name);
  const toggle = (name: string) => {
    const next = chosen.includes(name) ? chosen.filter((n) => n !== name) : [...chosen, name];
    useCompareChoice.setState({ plans: next });
  };
  const all = [BASELINE.name, ...stored.map((p) => p.name)];
  return (
    <fieldset className="flex flex-wrap items-center gap-x-4 gap-y-1">
      <legend className="float-left mr-4 w-24 shrink-0 text-soft">Plans</legend>
      {all.map((name) => (
        <label key={name} className="flex max-w-64 items-center gap-1.5">
          <input
            type="checkbox"
            checked={chosen.includes(name)}
            disabled={!chosen.includes(name) && chosen.length >= MOST_PLANS}
            onChange={() => toggle(name)}
          />
          <span className="truncate">{name}</span>
        </label>
      ))}
      {chosen.length > 1 ? (
        <label className="ml-auto flex items-center gap-1.5 text-soft">
          compared with
          <select
            value={chosen[0]}
            onChange={(event) => {
              const first = event.target.value;
              useCompareChoice.setState({ plans: [first, ...chosen.filter((n) => n !== first)] });
            }}
            className={`${SELECT} max-w-48 text-ink`}
          >
            {chosen.map((name) => (
              <option key={name}>{name}</option>
            ))}
          </select>
        </label>
      ) : null}
    </fieldset>
  );
}

function UnderConditions() {
  const conditions = useComparedConditions();
  const more = useCompareChoice((s) => s.more);
  const put = (next: ConditionIds[]) => useCompareChoice.setState({ more: next });
  const next = nextConditions(conditions);
  return (
    <fieldset className="flex flex-wrap items-center gap-x-4 gap-y-1">
      <legend className="float-left mr-4 w-24 shrink-0 text-soft">Conditions</legend>
      <span>{conditionsWords(conditions[0])}</span>
      {more.map((ids, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: conditions have no other name, and may be alike for a moment
        <span key={at} className="flex items-center gap-1">
          <select
            aria-label={`Link ${at + 2}`}
            value={ids.link}
            onChange={(event) => put(more.with(at, { ...ids, link: event.target.value }))}
            className={SELECT}
          >
            {LINKS.map((l) => (
              <option key={l.id} value={l.id}>
                {l.name}
              </option>
            ))}
          </select>
          <select
            aria-label={`Device ${at + 2}`}
            value={ids.device}
            onChange={(event) => put(more.with(at, { ...ids, device: event.target.value }))}
            className={SELECT}
          >
            {DEVICES.map((d) => (
              <option key={d.id} value={d.id}>
                {d.name}
              </option>
            ))}
          </select>
          <select
            aria-label={`Cache ${at + 2}`}
            value={ids.cache}
            onChange={(event) => put(more.with(at, { ...ids, cache: event.target.value as ConditionIds['cache'] }))}
            className={SELECT}
          >
            {CACHE_STATES.map((c) => (
              <option key={c}>{c}</option>
            ))}
          </select>
          <button
            type="button"
            aria-label={`Remove ${conditionsWords(conditions[at + 1])}`}
            onClick={() => put(more.toSpliced(at, 1))}
            className="min-h-6 min-w-6 text-soft hover:text-worse"
          >
            ✕
          </button>
        </span>
      ))}
      {conditions.length < MOST_CONDITIONS && next ? (
        <button
          type="button"
          onClick={() => put([...more, next])}
          className="rounded border border-line px-2 py-0.5 hover:border-ink"
        >
          Add conditions
        </button>
      ) : null}
    </fieldset>
  );
}
