'use client';

import { withVisitors } from '../../../core/amend/visits.ts';
import type { Habits, VisitorNotes } from '../../../core/snapshot/visitor-types.ts';
import { movesOf, withAct, withDwell, withMove } from '../../../core/visitors/edit.ts';
import { scaled } from '../../../core/visitors/model.ts';
import { analyst } from '../../../worker/client.ts';
import type { VisitorsView } from '../../../worker/services/visits.ts';
import { NumberField, PickField } from '../../parts/field.tsx';
import { percent } from '../../parts/format.ts';
import { WeightList } from '../../parts/weight-list.tsx';
import { useAmendments } from '../../state/amendments.ts';
import { useAsked } from '../../state/asked.ts';
import { CROWDS, useCrowds } from '../../state/expectation.ts';
import { useWorkbench } from '../../state/workbench.ts';
import { LogReader } from './log-reader.tsx';

const MOST_DWELL = 3600;

/** Who comes: conditions, habits on a route, shares of all; everything can be said otherwise. */
export function ModelSheet({ route, onRoute }: { route: string | null; onRoute: (route: string | null) => void }) {
  const { found, error } = useAsked(() => analyst().visits.visitors(), '', []);
  const amendments = useAmendments();
  const amend = useWorkbench((s) => s.amend);
  if (error) return <p className="text-worse">{error}</p>;
  if (!found) return <p className="text-soft">Reading what is said of visitors …</p>;
  const say = (notes: VisitorNotes, words: string) => amend(withVisitors(amendments, notes), words);
  const habits = found.model.routes.find((r) => r.pattern === route) ?? found.model.routes[0];
  return (
    <>
      <Troubles
        found={found}
        onScale={(pattern) => say(scaled(found.notes, pattern), `scale the moves from ${pattern}`)}
      />
      <Crowds />
      {habits ? (
        <>
          <div className="mt-5 mb-2">
            <PickField
              label="Habits on"
              value={habits.pattern}
              options={found.model.routes.map((r) => ({ value: r.pattern, label: r.pattern }))}
              onTake={onRoute}
            />
          </div>
          <RouteHabits habits={habits} notes={found.notes} say={say} />
        </>
      ) : null}
      <Everybody found={found} say={say} />
      <LogReader />
    </>
  );
}

function Troubles({ found, onScale }: { found: VisitorsView; onScale: (pattern: string) => void }) {
  if (found.troubles.length === 0) return null;
  return (
    <ul className="mb-4 grid gap-2" role="alert">
      {found.troubles.map((t) => (
        <li key={t.message} className="text-worse">
          {sentence(t.message)}{' '}
          {t.sum === undefined ? null : (
            <button type="button" className="text-ink underline" onClick={() => onScale(t.route)}>
              Scale to 100 %
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}

function Crowds() {
  const weights = useCrowds((s) => s.weights);
  return (
    <section>
      <h2 className="mb-1.5 font-semibold">They come with</h2>
      <WeightList of={CROWDS} weights={weights} onTake={(next) => useCrowds.setState({ weights: next })} />
    </section>
  );
}

type Say = (notes: VisitorNotes, words: string) => void;

function RouteHabits({ habits, notes, say }: { habits: Habits; notes: VisitorNotes; say: Say }) {
  const routes = useWorkbench((s) => s.app?.routes) ?? [];
  const { pattern } = habits;
  const said = notes.routes?.some((r) => r.pattern === pattern);
  const moves = movesOf(notes, habits);
  const leaves = 1 - moves.reduce((sum, m) => sum + m.share, 0);
  const others = routes.filter((r) => r.pattern !== pattern && !moves.some((m) => m.to === r.pattern));
  return (
    <>
      {said ? null : <p className="mb-1.5 text-soft">Nothing is said of it: assumed, until you say something.</p>}
      <ul className="grid gap-1">
        {moves.map(({ to, share }) => (
          <Share
            key={to}
            label={`goes to ${to}`}
            share={share}
            onTake={(next) => say(withMove(notes, habits, to, next), `${percent(next)} go from ${pattern} to ${to}`)}
          />
        ))}
        <li className="flex items-center justify-between gap-2 pr-[22px] text-soft">
          <span>leaves</span>
          <span className={leaves < -0.0001 ? 'text-worse' : ''}>{percent(leaves)}</span>
        </li>
        {habits.acts.map(({ part, name, scroll, share }) => (
          <Share
            key={part}
            label={`${scroll ? 'scrolls to' : 'opens'} ${name}`}
            share={share}
            onTake={(next) => say(withAct(notes, habits, part, next), `${percent(next)} on ${pattern} want ${name}`)}
          />
        ))}
      </ul>
      <div className="mt-2 grid grid-cols-2 items-end gap-3">
        <NumberField
          label="Between moments"
          unit="s"
          most={MOST_DWELL}
          value={habits.dwell.medianMs / 1000}
          onTake={(s) =>
            say(
              withDwell(notes, pattern, { ...habits.dwell, medianMs: s * 1000 }),
              `${s} s between moments on ${pattern}`,
            )
          }
        />
        {others.length > 0 ? (
          <PickField
            label="Another move"
            value=""
            options={[{ value: '', label: 'to …' }, ...others.map((r) => ({ value: r.pattern, label: r.pattern }))]}
            onTake={(to) => {
              const share = Math.max(0, Math.min(0.1, leaves));
              if (to !== '') say(withMove(notes, habits, to, share), `some go from ${pattern} to ${to}`);
            }}
          />
        ) : null}
      </div>
    </>
  );
}

function Everybody({ found: { model, notes }, say }: { found: VisitorsView; say: Say }) {
  const set = (change: Partial<VisitorNotes>, words: string) => say({ ...notes, ...change }, words);
  return (
    <section className="mt-5">
      <h2 className="mb-1.5 font-semibold">Of all visits</h2>
      <ul className="grid gap-1">
        <Share
          label="were there before"
          share={model.returning}
          onTake={(v) => set({ returning: v }, `${percent(v)} return`)}
        />
        <Share
          label="of these, after a deploy"
          share={model.deployed}
          onTake={(v) => set({ deployed: v }, `${percent(v)} return after a deploy`)}
        />
        <Share
          label="save data"
          share={model.dataSaver}
          onTake={(v) => set({ dataSaver: v }, `${percent(v)} save data`)}
        />
        {model.segments.map((s) => (
          <Share
            key={s.name}
            label={s.name}
            share={s.share}
            onTake={(share) =>
              set(
                { segments: [...(notes.segments ?? []).filter((o) => o.name !== s.name), { name: s.name, share }] },
                `${percent(share)} are ${s.name}`,
              )
            }
          />
        ))}
      </ul>
      <div className="mt-2 grid grid-cols-2 items-end gap-3">
        <NumberField
          label="Hesitation"
          unit="ms"
          most={60_000}
          value={model.hesitation.medianMs}
          onTake={(medianMs) => set({ hesitation: { ...model.hesitation, medianMs } }, `hesitate for ${medianMs} ms`)}
        />
        <NumberField
          label={model.touch === null ? 'Touch (as device)' : 'Touch'}
          unit="%"
          most={100}
          value={Math.round((model.touch ?? 0) * 100)}
          onTake={(touch) => set({ touch: touch / 100 }, `${touch} % touch`)}
        />
      </div>
    </section>
  );
}

function Share({ label, share, onTake }: { label: string; share: number; onTake: (share: number) => void }) {
  return (
    <li className="flex items-center justify-between gap-2">
      <span className="min-w-0 truncate" title={label}>
        {label}
      </span>
      <NumberField
        bare
        label={label}
        unit="%"
        most={100}
        value={Math.round(share * 1000) / 10}
        onTake={(next) => onTake(next / 100)}
      />
    </li>
  );
}

function sentence(text: string): string {
  return `${text[0].toUpperCase()}${text.slice(1)}.`;
}
