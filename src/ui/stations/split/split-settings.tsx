'use client';

import type { SplitRow } from '../../../core/outline/outline.ts';
import { subjectOf } from '../../../core/plan/decisions.ts';
import {
  DATA_MOMENTS,
  type Decision,
  ERROR_STATES,
  FALLBACK_SCOPES,
  FALLBACKS,
  type Fallback,
  type SplitSettings,
} from '../../../core/plan/types.ts';
import type { Trigger, TriggerKind } from '../../../core/vocabulary/triggers.ts';
import { triggerWords } from '../../../core/vocabulary/triggers.ts';
import { NumberField, PickField, TextField } from '../../parts/field.tsx';
import { useWorkbench } from '../../state/workbench.ts';

/** Moments at which code that was fetched can run or show; null: it needs more than a click to tell, or adds nothing. */
const OFFERED: Record<TriggerKind, Trigger | null> = {
  'at once': null,
  'after first paint': { on: 'after first paint' },
  idle: { on: 'idle' },
  visible: null,
  approach: null,
  action: { on: 'action' },
  after: null,
  media: null,
  answer: null,
  event: null,
};
const MOMENTS: Trigger[] = Object.values(OFFERED).filter((t) => t !== null);
const READY = 'as soon as it can' as const;
const SCOPES = { part: 'its own place', area: 'the whole page', app: 'the whole app' } as const;
const FALLBACK_LABELS: Record<Fallback['show'], string> = {
  'stand-in': 'a placeholder',
  'reserved space': 'reserved space',
  nothing: 'nothing',
  'old screen': 'the old screen',
};
const LONGEST_HOLD = 10_000;

/** What is decided about a split point beside its fetch: when it runs, what stands in its place, with whom it shows. */
export function SplitSettingsFields({ row }: { row: SplitRow }) {
  const decide = useWorkbench((s) => s.decide);
  const withdraw = useWorkbench((s) => s.withdraw);
  const { settings } = row;
  const set = (change: Partial<{ [K in keyof SplitSettings]: SplitSettings[K] | undefined }>) => {
    const next = Object.fromEntries(
      Object.entries({
        ...settings,
        ...change,
      }).filter(([, value]) => value !== undefined && value !== false),
    ) as SplitSettings;
    const decision: Decision = { kind: 'split', splitPoint: row.target, ...next };
    if (Object.keys(next).length > 0) decide([decision]);
    else withdraw([subjectOf(decision)], `${row.name}: as it is by itself`);
  };
  const moment = (label: string, of: 'run' | 'show') => (
    <PickField
      label={label}
      value={settings[of] ? triggerWords(settings[of]) : READY}
      options={momentsWith(settings[of]).map((words) => ({ value: words, label: words }))}
      onTake={(words) => set({ [of]: MOMENTS.find((t) => triggerWords(t) === words) })}
    />
  );
  return (
    <section className="mt-4">
      <h3 className="mb-1.5 font-semibold">Run and show</h3>
      <div className="grid grid-cols-2 gap-x-3 gap-y-2">
        {moment('Its code runs', 'run')}
        {moment('It is shown', 'show')}
        <FallbackFields
          fallback={settings.fallback ?? { show: 'stand-in', holdMs: 0 }}
          set={(fallback) => set({ fallback })}
        />
        <PickField
          label="If it can’t be loaded"
          value={settings.onError ?? 'not said'}
          options={['not said' as const, ...ERROR_STATES].map((state) => ({ value: state, label: state }))}
          onTake={(state) => set({ onError: state === 'not said' ? undefined : state })}
        />
        <PickField
          label="Its data is fetched"
          value={settings.data ?? READY}
          options={[READY, ...DATA_MOMENTS].map((words) => ({ value: words, label: words }))}
          onTake={(words) => set({ data: words === READY ? undefined : words })}
        />
        <TextField
          label="Shown with group"
          placeholder="none"
          value={settings.together ?? ''}
          onTake={(together) => set({ together: together === '' ? undefined : together })}
        />
      </div>
      <label className="mt-2 flex items-center gap-1.5">
        <input
          type="checkbox"
          checked={settings.clientOnly ?? false}
          onChange={(event) => set({ clientOnly: event.target.checked })}
        />
        client only: never drawn on the server
      </label>
    </section>
  );
}

/** What stands in its place until it shows; nothing is set where it is as it would be without being told. */
function FallbackFields({ fallback, set }: { fallback: Fallback; set: (fallback: Fallback | undefined) => void }) {
  const take = (f: Fallback) =>
    set(f.show === 'stand-in' && f.holdMs === 0 && (f.scope ?? 'part') === 'part' ? undefined : f);
  return (
    <>
      <PickField
        label="Until it shows"
        value={fallback.show}
        options={FALLBACKS.map((show) => ({ value: show, label: FALLBACK_LABELS[show] }))}
        onTake={(show) => take({ ...fallback, show })}
      />
      <PickField
        label="in place of"
        value={fallback.scope ?? 'part'}
        options={FALLBACK_SCOPES.map((scope) => ({ value: scope, label: SCOPES[scope] }))}
        onTake={(scope) => take({ ...fallback, scope })}
      />
      {fallback.show === 'stand-in' ? (
        <NumberField
          label="Placeholder kept at least"
          unit="ms"
          most={LONGEST_HOLD}
          value={fallback.holdMs}
          onTake={(holdMs) => take({ ...fallback, holdMs })}
        />
      ) : null}
    </>
  );
}

/** Words for the moments to choose from, with one of another kind that the plan already has. */
function momentsWith(present: Trigger | undefined): string[] {
  return [...new Set([READY, ...(present ? [triggerWords(present)] : []), ...MOMENTS.map(triggerWords)])];
}
