'use client';

import type { SplitRow } from '../../../core/outline/outline.ts';
import { subjectOf, triggerWords } from '../../../core/plan/decisions.ts';
import type { Decision, SplitSettings, Trigger } from '../../../core/plan/types.ts';
import { NumberField, PickField, TextField } from '../../parts/field.tsx';
import { storedPlan, useWorkbench } from '../../state/workbench.ts';

const RUNS: (Trigger | null)[] = [null, { on: 'after first paint' }, { on: 'idle' }, { on: 'action' }];
const LONGEST_HOLD = 10_000;

/** What is decided about a split point beside its fetch: when it runs, what stands in its place, with whom it shows. */
export function SplitSettingsFields({ row }: { row: SplitRow }) {
  const plan = useWorkbench((s) => storedPlan(s));
  const decide = useWorkbench((s) => s.decide);
  const withdraw = useWorkbench((s) => s.withdraw);
  const { settings } = row;
  if (!plan) return null;
  const set = (change: Partial<{ [K in keyof SplitSettings]: SplitSettings[K] | undefined }>) => {
    const next = Object.fromEntries(
      Object.entries({
        run: settings.run,
        fallback: settings.fallback,
        together: settings.together,
        clientOnly: settings.clientOnly,
        ...change,
      }).filter(([, value]) => value !== undefined && value !== false),
    ) as SplitSettings;
    const decision: Decision = { kind: 'split', splitPoint: row.target, ...next };
    if (Object.keys(next).length > 0) decide([decision]);
    else withdraw([subjectOf(decision)], `${row.name}: as it is by itself`);
  };
  const fallback = settings.fallback ?? { show: 'stand-in' as const, holdMs: 0 };
  const keep = (f: typeof fallback) => (f.show === 'stand-in' && f.holdMs === 0 ? undefined : f);
  const run = settings.run ? triggerWords(settings.run) : 'once it is there';
  return (
    <section className="mt-4">
      <h3 className="mb-1.5 font-semibold">Run and show</h3>
      <div className="grid grid-cols-2 gap-x-3 gap-y-2">
        <PickField
          label="Its code runs"
          value={run}
          options={RUNS.map((r) => ({
            value: r ? triggerWords(r) : 'once it is there',
            label: r ? triggerWords(r) : 'once it is there',
          }))}
          onTake={(words) => set({ run: RUNS.find((r) => r && triggerWords(r) === words) ?? undefined })}
        />
        <PickField
          label="Until it shows"
          value={fallback.show}
          options={[
            { value: 'stand-in', label: 'a stand-in' },
            { value: 'nothing', label: 'nothing' },
          ]}
          onTake={(show) => set({ fallback: keep({ ...fallback, show }) })}
        />
        {fallback.show === 'stand-in' ? (
          <NumberField
            label="Stand-in held at least"
            unit="ms"
            most={LONGEST_HOLD}
            value={fallback.holdMs}
            onTake={(holdMs) => set({ fallback: keep({ ...fallback, holdMs }) })}
          />
        ) : null}
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
