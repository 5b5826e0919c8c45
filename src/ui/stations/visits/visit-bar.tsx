'use client';

import type { Visit } from '../../../core/visits/types.ts';
import type { VisitView } from '../../../worker/services/visits.ts';
import { Change } from '../../parts/change.tsx';
import { PickField, TextField } from '../../parts/field.tsx';
import { size, time } from '../../parts/format.ts';
import { useKeptVisits, useVisitChoice } from '../../state/visit.ts';
import { useWorkbench } from '../../state/workbench.ts';

const TYPICAL = 'typical';
const CHANGED = 'changed';

/** Which visit it is, keeping it, playing it as if nobody hesitated, and what it comes to. */
export function VisitBar({ visit, own, view }: { visit: Visit; own: boolean; view: VisitView | null }) {
  const { kept, keep, drop } = useKeptVisits();
  const atOnce = useVisitChoice((s) => s.atOnce);
  const choose = useWorkbench((s) => s.choose);
  const same = kept.find((k) => JSON.stringify(k) === JSON.stringify(visit));
  const value = !own ? TYPICAL : same ? `kept ${same.name}` : CHANGED;
  const options = [
    { value: TYPICAL, label: `typical, from ${visit.landing}` },
    ...(value === CHANGED ? [{ value: CHANGED, label: 'changed by you' }] : []),
    ...kept.map((k) => ({ value: `kept ${k.name}`, label: k.name })),
  ];
  return (
    <div className="flex flex-wrap items-end gap-x-4 gap-y-2 border-b border-line px-4 py-2.5">
      <div className="w-56">
        <PickField
          label="Visit"
          value={value}
          options={options}
          onTake={(picked) => {
            const script = kept.find((k) => `kept ${k.name}` === picked) ?? null;
            if (script) choose({ route: script.landing });
            useVisitChoice.setState({ script, step: null });
          }}
        />
      </div>
      {value === CHANGED ? (
        <div className="w-36">
          <TextField
            label="Keep it as"
            placeholder="a name, then Enter"
            value=""
            onTake={(name) => {
              const named = { ...visit, name };
              useVisitChoice.setState({ script: named });
              keep(named);
            }}
          />
        </div>
      ) : null}
      {same && own ? (
        <button type="button" className="pb-1 text-soft underline hover:text-ink" onClick={() => drop(same.name)}>
          Drop it
        </button>
      ) : null}
      <label className="flex items-center gap-1.5 pb-1">
        <input
          type="checkbox"
          checked={atOnce}
          onChange={(e) => useVisitChoice.setState({ atOnce: e.target.checked })}
        />
        nobody hesitates
      </label>
      {view ? (
        <dl className="ml-auto flex gap-4">
          <Sum name="waits" value={view.sums.waits} was={view.before?.waits} format={time} />
          <Sum name="travels" value={view.sums.bytes} was={view.before?.bytes} format={size} />
          <Sum name="never used" value={view.sums.unused} was={view.before?.unused} format={size} />
        </dl>
      ) : null}
    </div>
  );
}

function Sum({
  name,
  value,
  was,
  format,
}: {
  name: string;
  value: number;
  was?: number;
  format: (v: number) => string;
}) {
  return (
    <div>
      <dt className="text-[11px] text-soft">{name}</dt>
      <dd className="font-semibold">
        {format(value)}{' '}
        {was !== undefined && Math.abs(value - was) >= 1 ? (
          <span className="text-[11px] font-normal">
            <Change value={value - was} format={format} />
          </span>
        ) : null}
      </dd>
    </div>
  );
}
