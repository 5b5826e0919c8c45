'use client';

import type { Choice, Circumstance, CurvePoint, Limits, Loser, Turn } from '../../../core/choose/types.ts';
import { counted } from '../../../core/text/counted.ts';
import { NumberField, PickField } from '../../parts/field.tsx';
import { count, percent, size, time } from '../../parts/format.ts';
import { Term } from '../../parts/term.tsx';
import {
  forgetChoice,
  pickChosen,
  remedyOf,
  startChoosing,
  stopChoosing,
  takenOf,
  useChoosing,
  useWishes,
} from '../../state/choosing.ts';
import { CROWDS, crowdsOf, useCrowds } from '../../state/expectation.ts';
import { fitOf, useSubject } from '../../state/subject.ts';
import { useConditions, usePlan, useWorkbench } from '../../state/workbench.ts';
import { GainCurve } from './gain-curve.tsx';
import { PreviewButton } from './preview-button.tsx';

const BAR = 130;
const MOST_CHANGES = 60;
const PHASES = {
  'each alone': 'trying each by itself',
  'all sets': 'trying every set',
  adding: 'adding what saves most',
  'leaving out and swapping': 'leaving out and swapping',
  'the curve': 'weighing gain against waste',
};

const ABOUT = [
  { value: 'both', label: 'splits and hints' },
  { value: 'hints', label: 'hints' },
  { value: 'splits', label: 'splits' },
] as const;
const FOR = [
  { value: 'now', label: 'the conditions at the top' },
  { value: 'crowds', label: 'all visitors, as in Visits' },
] as const;
const AIM = [
  { value: 'mean', label: 'on average' },
  { value: 'worst', label: 'where visits cost most' },
] as const;

/** Changes chosen together under limits, in the order in which they earned their place, with gain against waste. */
export function ChoosePage() {
  const { at, turns, choice, of, error, share, phase, picked } = useChoosing((s) => s);
  const subject = useSubject();
  const over = at === 'chosen' || at === 'stopped';
  const changed = over && fitOf(of, subject, []) !== 'fits';
  const taken = takenOf({ turns, picked });
  return (
    <div className="h-full min-h-0 overflow-y-auto px-4 pt-4 pb-6">
      <h1 className="text-[15px] font-semibold">Choose for me</h1>
      <p className="mb-3 max-w-3xl text-soft">
        Everything that could make sense is simulated by itself and together; what serves visitors best within your
        limits is proposed, and nothing changes until you take it.
      </p>
      <Wishes />
      {error ? (
        <p className="mt-3 text-worse" role="alert">
          {error}
        </p>
      ) : null}
      <div className="mt-4 mb-2 flex min-h-8 items-center gap-4">
        <p className="text-soft" aria-live="polite">
          {at === 'choosing' ? `${PHASES[phase]}: ${percent(share)}; ${counted(turns.length, 'change')} so far` : ''}
          {changed ? 'The plan has changed since; choose again.' : ''}
          {at === 'stopped' && !changed
            ? `Stopped with ${counted(turns.length, 'change')}; each of them is measured.`
            : ''}
          {at === 'chosen' && choice && !changed ? summary(choice) : ''}
          {over && turns.length === 0 ? ' Nothing helps under these limits.' : ''}
        </p>
        {over && taken.length > 0 && !changed ? <Take turns={taken} /> : null}
      </div>
      {turns.length > 0 ? (
        <div className="grid grid-cols-[minmax(0,1fr)_minmax(280px,400px)] gap-8">
          <Path taken={taken} left={picked ? turns.filter((t) => !holds(taken, t)) : []} />
          {choice ? <Beside choice={choice} picked={picked} /> : null}
        </div>
      ) : null}
    </div>
  );
}

function summary({ before, after, turns, measured, exhaustive, candidates }: Choice): string {
  const how = exhaustive ? 'every set was tried' : `${measured} sets measured`;
  return `${turns.length} of ${candidates.length} candidates: from ${time(before.cost)} to ${time(after.cost)} of expected cost per visit (${how}).`;
}

/** What is chosen from, for whom, and within which limits. */
function Wishes() {
  const plan = usePlan();
  const conditions = useConditions();
  const weights = useCrowds((s) => s.weights);
  const { about, people, aim, limits } = useWishes();
  const choosing = useChoosing((s) => s.at === 'choosing');
  const any = useChoosing((s) => s.turns.length > 0);
  const here: Circumstance = { name: `${conditions.link.name}, ${conditions.device.name}`, conditions, share: 1 };
  const start = () => void startChoosing(plan, people === 'now' ? [here] : crowdsOf(weights), { about, aim, limits });
  return (
    <div className="flex flex-wrap items-end gap-x-5 gap-y-3">
      <PickField label="Choose" value={about} options={ABOUT} onTake={(v) => useWishes.setState({ about: v })} />
      <PickField label="For" value={people} options={FOR} onTake={(v) => useWishes.setState({ people: v })} />
      {people === 'crowds' ? (
        <PickField
          label={`Best (${CROWDS.filter((c) => weights[c.id] > 0).length} sets)`}
          value={aim}
          options={AIM}
          onTake={(v) => useWishes.setState({ aim: v })}
        />
      ) : null}
      <LimitFields />
      {choosing ? (
        <button
          type="button"
          onClick={stopChoosing}
          className="rounded border border-line px-3.5 py-1.5 hover:border-ink"
        >
          Stop
        </button>
      ) : (
        <button
          type="button"
          onClick={start}
          className={`rounded px-3.5 py-1.5 font-medium ${any ? 'border border-line hover:border-ink' : 'bg-ink text-on-ink'}`}
        >
          {any ? 'Choose again' : 'Choose'}
        </button>
      )}
    </div>
  );
}

/** How much may change, and what nobody may lose. */
function LimitFields() {
  const limits = useWishes((s) => s.limits);
  const set = (change: Partial<Limits>) => useWishes.setState({ limits: { ...limits, ...change } });
  return (
    <>
      <NumberField
        label="At most"
        unit="changes"
        most={MOST_CHANGES}
        value={limits.changes}
        onTake={(n) => set({ changes: Math.round(n) })}
      />
      <NumberField
        label="First content, at most"
        unit="ms later"
        most={10_000}
        value={limits.firstContentMs}
        onTake={(n) => set({ firstContentMs: n })}
      />
      <NumberField
        label="Answer, at most"
        unit="ms later"
        most={10_000}
        value={limits.interactiveMs}
        onTake={(n) => set({ interactiveMs: n })}
      />
      <NumberField
        label="Each change saves"
        unit="ms a visit or more"
        most={10_000}
        value={limits.changeMs}
        onTake={(n) => set({ changeMs: n })}
      />
      <NumberField
        label="Wasted, at most"
        unit="kB more a visit"
        most={100_000}
        value={(limits.wasteBytes ?? 0) / 1000}
        onTake={(n) => set({ wasteBytes: n * 1000 })}
      />
      <label className="flex h-7 items-center gap-1.5 whitespace-nowrap">
        <input
          type="checkbox"
          checked={limits.spareDataSavers}
          onChange={(event) => set({ spareDataSavers: event.target.checked })}
        />
        no prefetching for data savers
      </label>
    </>
  );
}

function Take({ turns }: { turns: Turn[] }) {
  const takeAll = useWorkbench((s) => s.take);
  const remedy = remedyOf(
    turns,
    useChoosing((s) => s.limits),
  );
  const take = () => {
    takeAll(remedy);
    forgetChoice();
  };
  return (
    <span className="flex shrink-0 gap-2">
      <button type="button" onClick={take} className="rounded bg-ink px-3.5 py-1.5 font-medium text-on-ink">
        Apply {turns.length === 1 ? 'it' : `these ${turns.length}`}
      </button>
      <PreviewButton remedy={remedy} />
    </span>
  );
}

function Beside({ choice, picked }: { choice: Choice; picked: CurvePoint | null }) {
  const { curve, losers } = choice;
  const last = curve.at(-1);
  return (
    <div className="min-w-0">
      <h2 className="mb-1 font-semibold">Gain against waste</h2>
      {last && curve.length > 1 ? (
        <GainCurve curve={curve} picked={picked ?? last} onPick={(p) => pickChosen(p === last ? null : p)} />
      ) : (
        <p className="text-soft">
          {last ? `All of it wastes ${size(last.waste)} per visit: there is nothing to weigh.` : 'Nothing to weigh.'}
        </p>
      )}
      <h2 className="mt-5 mb-1 font-semibold">Who is worse off</h2>
      {losers.length === 0 ? (
        <p className="text-soft">Nobody, in any of the circumstances chosen for.</p>
      ) : (
        <Losers losers={losers} many={choice.before.costs.length > 1} />
      )}
    </div>
  );
}

function Losers({ losers, many }: { losers: Loser[]; many: boolean }) {
  return (
    <ul>
      {losers.map((l) => (
        <li key={`${l.circumstance} ${l.who}`} className="flex justify-between gap-3 border-t border-line py-0.5">
          <span className="min-w-0 truncate" title={`${l.circumstance}: ${l.who}`}>
            {l.who || 'all of it'}
            {many ? <span className="text-soft"> · {l.circumstance}</span> : null}
          </span>
          <span className="shrink-0 text-worse">▴ {time(l.change)}</span>
        </li>
      ))}
    </ul>
  );
}

const holds = (turns: Turn[], { candidate }: Turn) => turns.some((t) => t.candidate.id === candidate.id);

/** The changes in their order; below them those of the whole choice that the picked point leaves out. */
function Path({ taken, left }: { taken: Turn[]; left: Turn[] }) {
  const most = Math.max(1, ...taken.map((t) => t.gain));
  return (
    <table className="w-full">
      <thead>
        <tr className="text-left text-[11px] text-soft">
          <th className="w-8 font-normal">turn</th>
          <th className="font-normal">change</th>
          <th className="w-52 font-normal">saves a visit at its turn</th>
          <th className="w-16 text-right font-normal">
            <Term of="cost">cost then</Term>
          </th>
          <th className="w-16 text-right font-normal">
            <Term of="waste">waste then</Term>
          </th>
        </tr>
      </thead>
      <tbody>
        {taken.map((t, i) => (
          <tr key={t.candidate.id} className="border-t border-line align-top">
            <td className="py-1 text-soft">{count(i + 1)}</td>
            <td className="py-1 pr-3 break-words">
              {t.candidate.words}
              <span className="block text-[11px] text-soft">{t.candidate.why}</span>
            </td>
            <td className="py-1">
              <span className="flex items-center gap-2">
                <span
                  aria-hidden="true"
                  className="h-2 shrink-0 bg-[var(--better)]"
                  style={{ width: Math.max(1, (Math.max(0, t.gain) / most) * BAR) }}
                />
                {t.gain < 0.5 ? 'together with others' : time(t.gain)}
              </span>
            </td>
            <td className="py-1 text-right">{time(t.cost)}</td>
            <td className="py-1 text-right">{size(t.waste)}</td>
          </tr>
        ))}
        {left.map((t) => (
          <tr key={t.candidate.id} className="border-t border-line align-top text-soft">
            <td />
            <td colSpan={4} className="py-1 break-words">
              left out: <span className="line-through decoration-1">{t.candidate.words}</span>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
