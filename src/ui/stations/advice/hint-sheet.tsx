'use client';

import type { Remedy } from '../../../core/advise/types.ts';
import type { HintRow } from '../../../core/choose/hint-table.ts';
import { size, time } from '../../parts/format.ts';
import { useStations } from '../../state/stations.ts';
import { useWorkbench } from '../../state/workbench.ts';
import { EffectTables } from './effect-tables.tsx';
import { NO_GAIN } from './hint-lines.ts';
import { PaysWhen } from './pays-when.tsx';
import { PreviewButton } from './preview-button.tsx';

/** One hint: what it does to the landings and waits that it touches, and when it would pay. */
export function HintSheet({ row }: { row: HintRow }) {
  const { id, words, why, gain, waste, effect, on, trouble, hint } = row;
  const choose = useWorkbench((s) => s.choose);
  const go = useStations((s) => s.go);
  const [route] = hint.routes;
  const given: Remedy = { words, decisions: [{ kind: 'hint', hint }] };
  const remedy: Remedy = on ? { words: `remove: ${words}`, decisions: [], withdraw: [id] } : given;
  const what =
    Math.abs(gain) < NO_GAIN ? 'makes no difference' : gain > 0 ? `saves ${time(gain)}` : `costs ${time(-gain)}`;
  return (
    <>
      <p className="text-[11px] text-soft">{on ? 'a hint of this plan' : 'a hint that could be given'}</p>
      <h2 className="text-[15px] font-semibold break-words">{words}</h2>
      <p className="mt-1 text-soft">{why}.</p>
      {trouble ? <p className="mt-2 text-worse">Kept, but not applied: {trouble}.</p> : null}
      <p className="mt-3 font-medium">
        {on ? 'As the plan is, it' : 'By itself, it'} {what} per visit
        {Math.abs(waste) >= 0.5 ? `, and ${size(Math.abs(waste))} are fetched for nothing` : ''}.
      </p>
      <p className="mt-2 flex items-center gap-4">
        {trouble ? null : <PreviewButton remedy={remedy} />}
        {route ? (
          <button
            type="button"
            className="underline"
            onClick={() => {
              choose({ route, selection: null });
              go('startup');
            }}
          >
            See {route} on the waterfall
          </button>
        ) : null}
      </p>
      <div className="mt-3">
        <EffectTables effect={effect} />
      </div>
      <PaysWhen remedy={given} />
    </>
  );
}
