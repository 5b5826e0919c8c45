'use client';

import { useState } from 'react';
import type { Finding } from '../../../core/advise/types.ts';
import { decisionWords, subjectOf } from '../../../core/plan/decisions.ts';
import { Few } from '../../parts/few.tsx';
import { TextField } from '../../parts/field.tsx';
import { time } from '../../parts/format.ts';
import { seenWords } from '../../parts/seen-words.ts';
import { Term } from '../../parts/term.tsx';
import { useFindings } from '../../state/advice.ts';
import { useWorkbench } from '../../state/workbench.ts';
import { EffectTables } from './effect-tables.tsx';
import { InTheCode } from './in-the-code.tsx';
import { PaysWhen } from './pays-when.tsx';
import { PreviewButton } from './preview-button.tsx';

const MOST = 8;

/** One finding: why it is so, what the advised change does to landings and waits, and taking it or putting it aside. */
export function FindingSheet({ finding, aside }: { finding: Finding; aside: string | null }) {
  const { what, why, evidence, remedy, effect, basis, kind, id, cautions, whose, seen } = finding;
  return (
    <>
      <p className="text-[11px] text-soft">{kind}</p>
      <h2 className="text-[15px] font-semibold break-words">{what}</h2>
      <p className="mt-1 text-soft">{why}</p>
      {evidence.length > 0 ? (
        <ul className="mt-2 grid gap-1">
          <Few rows={evidence} most={MOST} as="li">
            {(b) => (
              <li key={`${b.from} ${b.line} ${b.to}`} className="font-mono text-[11px] break-all">
                {b.from}:{b.line} <span className="text-soft">→ {b.to}</span>
              </li>
            )}
          </Few>
        </ul>
      ) : null}
      {cautions.map((c) => (
        <p key={c} className="mt-2 break-words text-worse">
          Not as it is: {c}. Move what is needed there into a module of its own, or have that code wait for it; then the
          rest can be deferred.
        </p>
      ))}
      <Take finding={finding} aside={aside} id={id} isReady={cautions.length === 0} />
      <h3 className="mt-5 mb-1 font-semibold">
        {remedy.words[0].toUpperCase()}
        {remedy.words.slice(1)}:{' '}
        <span className="text-better">
          {seen ? (
            seenWords(effect.seen)
          ) : (
            <>
              ▾ {time(basis.on === 'a link' ? basis.saves : -effect.cost)} <Term of="cost">per visit</Term>
              {basis.on === 'a link' ? ` on ${basis.link}` : null}
            </>
          )}
        </span>
      </h3>
      <ul className="mb-2 text-[11px] text-soft">
        <Few rows={remedy.decisions} most={MOST} as="li">
          {(d) => <li key={subjectOf(d)}>{decisionWords(d)}</li>}
        </Few>
      </ul>
      {whose ? (
        <p className="mb-1 text-soft">
          Weighed in by how many they are; below, for{' '}
          {whose === 'data savers' ? whose : 'people who return after a deploy'}:
        </p>
      ) : null}
      <EffectTables effect={effect} />
      <InTheCode remedy={remedy} />
      {seen || whose ? null : <PaysWhen key={id} remedy={remedy} />}
    </>
  );
}

/** `isReady`: it can be taken as it is; else the code has to be prepared first, and taking it is only planning ahead. */
function Take({
  finding: { remedy, what },
  aside,
  id,
  isReady,
}: {
  finding: Finding;
  aside: string | null;
  id: string;
  isReady: boolean;
}) {
  const decide = useWorkbench((s) => s.decide);
  const withdraw = useWorkbench((s) => s.withdraw);
  const take = useWorkbench((s) => s.take);
  const { old } = useFindings();
  const [asking, setAsking] = useState(false);
  if (aside !== null)
    return (
      <p className="mt-3">
        Dismissed: {aside || 'no reason given'}.{' '}
        <button
          type="button"
          className="underline"
          onClick={() => withdraw([subjectOf({ kind: 'put aside', finding: id, reason: '' })], `reconsider: ${what}`)}
        >
          Reconsider
        </button>
      </p>
    );
  return (
    <div className="mt-3">
      <div className="flex gap-2">
        <button
          type="button"
          disabled={old}
          title={old ? 'It is measured again for the plan as it is now' : undefined}
          onClick={() => take(remedy)}
          className={
            isReady
              ? 'rounded bg-ink px-3.5 py-1.5 font-medium text-on-ink disabled:opacity-40'
              : 'rounded border border-line px-2.5 py-1.5 hover:border-ink disabled:opacity-40'
          }
        >
          {isReady ? 'Apply' : 'Apply to the plan anyway'}
        </button>
        <PreviewButton remedy={remedy} />
        <button
          type="button"
          aria-expanded={asking}
          onClick={() => setAsking(!asking)}
          className="rounded border border-line px-2.5 py-1.5 hover:border-ink"
        >
          Dismiss …
        </button>
      </div>
      {asking ? (
        <div className="mt-2">
          <TextField
            label="Why not"
            placeholder="a reason, then Enter"
            value=""
            onTake={(reason) => {
              decide([{ kind: 'put aside', finding: id, reason }], `dismiss: ${what}`);
              setAsking(false);
            }}
          />
        </div>
      ) : null}
    </div>
  );
}
