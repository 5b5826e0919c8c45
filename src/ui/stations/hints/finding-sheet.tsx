'use client';

import { useState } from 'react';
import type { Finding } from '../../../core/advise/types.ts';
import { decisionWords, subjectOf } from '../../../core/plan/decisions.ts';
import { Change } from '../../parts/change.tsx';
import { TextField } from '../../parts/field.tsx';
import { percent, size, time } from '../../parts/format.ts';
import { storedPlan, useWorkbench } from '../../state/workbench.ts';

const MOST = 8;

/** One finding: why it is so, what the advised change does to landings and waits, and taking it or putting it aside. */
export function FindingSheet({ finding, aside }: { finding: Finding; aside: string | null }) {
  const { what, why, because, way, effect, kind, id, cautions } = finding;
  return (
    <>
      <p className="text-[11px] text-soft">{kind}</p>
      <h2 className="text-[15px] font-semibold break-words">{what}</h2>
      <p className="mt-1 text-soft">{why}</p>
      {because.length > 0 ? (
        <ul className="mt-2 grid gap-1">
          {because.slice(0, MOST).map((b) => (
            <li key={`${b.from} ${b.line} ${b.to}`} className="font-mono text-[11px] break-all">
              {b.from}:{b.line} <span className="text-soft">→ {b.to}</span>
            </li>
          ))}
        </ul>
      ) : null}
      {cautions.map((c) => (
        <p key={c} className="mt-2 break-words text-worse">
          Detaching alone breaks it: {c}. Move that use into a function first.
        </p>
      ))}
      <Take finding={finding} aside={aside} id={id} />
      <h3 className="mt-5 mb-1 font-semibold">
        {way.words[0].toUpperCase()}
        {way.words.slice(1)}: <span className="text-better">▾ {time(-effect.cost)} per visit</span>
      </h3>
      <ul className="mb-2 text-[11px] text-soft">
        {way.decisions.slice(0, MOST).map((d) => (
          <li key={subjectOf(d)}>{decisionWords(d)}</li>
        ))}
      </ul>
      {effect.routes.length > 0 ? (
        <table className="w-full">
          <thead>
            <tr className="text-right text-[11px] text-soft">
              <th className="text-left font-normal">landing on</th>
              <th className="font-normal">first content</th>
              <th className="font-normal">interactive</th>
              <th className="font-normal">start</th>
            </tr>
          </thead>
          <tbody>
            {effect.routes.slice(0, MOST).map((r) => (
              <tr key={r.pattern} className="border-t border-line text-right align-top">
                <th className="max-w-28 py-0.5 text-left font-normal">
                  <span className="block truncate" title={r.pattern}>
                    {r.pattern}
                  </span>
                  <span className="text-[11px] text-soft">{percent(r.share)} of landings</span>
                </th>
                <td className="py-0.5">
                  <Change value={r.firstContent} format={time} />
                </td>
                <td className="py-0.5">
                  <Change value={r.interactive} format={time} />
                </td>
                <td className="py-0.5">
                  <Change value={r.startBytes} format={size} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
      {effect.waits.length > 0 ? (
        <>
          <h3 className="mt-4 mb-1 font-semibold">Waits later</h3>
          <ul>
            {effect.waits.slice(0, MOST).map((w) => (
              <li key={w.key} className="flex justify-between gap-3 border-t border-line py-0.5">
                <span className="min-w-0 truncate" title={w.key}>
                  {w.name} <span className="text-soft">on {w.route}</span>
                </span>
                <span className="shrink-0">
                  <Change value={w.change} format={time} />
                </span>
              </li>
            ))}
          </ul>
        </>
      ) : null}
    </>
  );
}

function Take({ finding: { way, what }, aside, id }: { finding: Finding; aside: string | null; id: string }) {
  const plan = useWorkbench((s) => storedPlan(s));
  const decide = useWorkbench((s) => s.decide);
  const withdraw = useWorkbench((s) => s.withdraw);
  const [asking, setAsking] = useState(false);
  if (!plan) return <p className="mt-3 text-soft">The baseline stays as built. Choose a plan at the top to decide.</p>;
  if (aside !== null)
    return (
      <p className="mt-3">
        Put aside: {aside || 'no reason given'}.{' '}
        <button
          type="button"
          className="underline"
          onClick={() =>
            withdraw([subjectOf({ kind: 'put aside', finding: id, reason: '' })], `take up again: ${what}`)
          }
        >
          Take it up again
        </button>
      </p>
    );
  const take = () => {
    if (way.decisions.length > 0) decide(way.decisions, way.words);
    else withdraw(way.withdraw ?? [], way.words);
  };
  return (
    <div className="mt-3">
      <div className="flex gap-2">
        <button type="button" onClick={take} className="rounded bg-ink px-3.5 py-1.5 font-medium text-on-ink">
          Take it
        </button>
        <button
          type="button"
          aria-expanded={asking}
          onClick={() => setAsking(!asking)}
          className="rounded border border-line px-2.5 py-1.5 hover:border-ink"
        >
          Put it aside …
        </button>
      </div>
      {asking ? (
        <div className="mt-2">
          <TextField
            label="Why not"
            placeholder="a reason, then Enter"
            value=""
            onTake={(reason) => {
              decide([{ kind: 'put aside', finding: id, reason }], `put aside: ${what}`);
              setAsking(false);
            }}
          />
        </div>
      ) : null}
    </div>
  );
}
