'use client';

import { useState } from 'react';
import type { GrainPoint } from '../../../../core/explain/granularity.ts';
import { decisionWords, subjectOf } from '../../../../core/plan/decisions.ts';
import type { Decision, Match, Shape, Ship } from '../../../../core/plan/types.ts';
import { analyst } from '../../../../worker/client.ts';
import { DecisionLine } from '../../../parts/decision-line.tsx';
import { PickField, TextField } from '../../../parts/field.tsx';
import { Message } from '../../../parts/message.tsx';
import { Aside, StationGrid } from '../../../parts/station-grid.tsx';
import { useAsked } from '../../../state/asked.ts';
import { useLanding } from '../../../state/landing.ts';
import { usePlan, useWorkbench } from '../../../state/workbench.ts';
import { ChunkList } from './chunk-list.tsx';
import { GrainCurve } from './grain-curve.tsx';

const RULES = ['gather', 'together', 'apart', 'style in script'] as const;

/** How modules are put into files: sizes, rules, names, and what finer or coarser files would do to the start. */
export function FilesPage() {
  const { found: chunks, error } = useAsked(({ plan, route }) => analyst().split.chunks(plan, route), '', ['route']);
  const { found: points, error: lost } = useAsked(({ plan, route, conditions }) =>
    analyst().split.granularity(plan, route, conditions),
  );
  const plan = usePlan();
  const route = useWorkbench((s) => s.route);
  const decide = useWorkbench((s) => s.decide);
  const withdraw = useWorkbench((s) => s.withdraw);
  if (error ?? lost) return <Message title="The files can’t be worked out">{error ?? lost}</Message>;
  const pick = ({ perModule, floor }: GrainPoint) => {
    const next = new Map<string, Decision>();
    if (perModule) next.set('grain', { kind: 'grain' });
    if (floor > 0) next.set('floor', { kind: 'floor', bytes: floor });
    const gone = ['grain', 'floor'].filter((s) => !next.has(s) && plan.decisions.some((d) => subjectOf(d) === s));
    if (gone.length > 0) withdraw(gone, 'other file sizes');
    if (next.size > 0) decide([...next.values()]);
  };
  return (
    <StationGrid id="files" aside={340}>
      <div className="min-h-0 overflow-y-auto px-4 pt-3 pb-6">
        <h1 className="text-[15px] font-semibold">How fine to cut</h1>
        <p className="mb-2 text-soft">
          the landing on {route} and all files of its entry, predicted for each way of cutting; choose one by a click
        </p>
        {points ? (
          <GrainCurve points={points} onPick={pick} />
        ) : (
          <p className="h-56 text-soft">Predicting each way …</p>
        )}
        <ChunkList chunks={chunks} />
      </div>
      <Aside label="Rules">
        <Rules onRule={(shape) => decide([shape])} />
      </Aside>
    </StationGrid>
  );
}

/** Limits and rules of the plan, each to be changed or taken back. */
function Rules({ onRule }: { onRule: (shape: Shape | Ship) => void }) {
  const plan = usePlan();
  const decide = useWorkbench((s) => s.decide);
  const withdraw = useWorkbench((s) => s.withdraw);
  const stale = useLanding((s) => s.stale);
  const value = (kind: 'floor' | 'ceiling' | 'copy') => {
    const found = plan.decisions.find((d) => d.kind === kind);
    if (!found) return '';
    return String(
      found.kind === 'floor'
        ? found.bytes / 1000
        : found.kind === 'copy'
          ? found.below / 1000
          : found.kind === 'ceiling'
            ? found.requests
            : '',
    );
  };
  const number = (kind: 'floor' | 'ceiling' | 'copy', label: string) => (
    <TextField
      label={label}
      placeholder="none"
      value={value(kind) === String(Number.MAX_SAFE_INTEGER / 1000) ? 'all' : value(kind)}
      check={(text) => (text === '' || Number(text) >= 0 ? null : 'Give a number, or nothing.')}
      onTake={(text) => {
        const n = Number(text);
        if (text === '' || n === 0) withdraw([kind], `no ${label.toLowerCase()}`);
        else if (kind === 'floor') onRule({ kind, bytes: Math.round(n * 1000) });
        else if (kind === 'copy') onRule({ kind, below: Math.round(n * 1000) });
        else onRule({ kind, requests: Math.max(1, Math.round(n)) });
      }}
    />
  );
  const rules = plan.decisions
    .map((d, at) => ({ d, at }))
    .filter(({ d }) => (RULES as readonly string[]).includes(d.kind) || d.kind === 'grain' || d.kind === 'chunk name');
  return (
    <>
      <h2 className="mb-2 text-[15px] font-semibold">Limits</h2>
      <div className="space-y-2">
        {number('floor', 'Least size of a chunk, minified kB')}
        {number('ceiling', 'Most chunks that one moment asks for')}
        {number('copy', 'Copy what is shared below, minified kB')}
        <PickField
          label="How files of a load group are found"
          value={plan.decisions.some((d) => d.kind === 'loader' && d.loader === 'discovered') ? 'discovered' : 'listed'}
          options={[
            { value: 'listed', label: 'listed: all asked for at once' },
            { value: 'discovered', label: 'discovered: each by the file that imports it' },
          ]}
          onTake={(loader) =>
            loader === 'listed' ? withdraw(['loader'], 'list whole load groups') : decide([{ kind: 'loader', loader }])
          }
        />
      </div>
      <h2 className="mt-6 mb-1 text-[15px] font-semibold">Rules</h2>
      {rules.length === 0 ? (
        <p className="text-soft">None: modules that the same moments need share a chunk.</p>
      ) : (
        <ul>
          {rules.map(({ d, at }) => (
            <DecisionLine
              key={subjectOf(d)}
              decision={d}
              troubles={stale.filter((s) => s.decision === at).map((s) => s.reason)}
              onTakeBack={() => withdraw([subjectOf(d)], `remove: ${decisionWords(d)}`)}
            />
          ))}
        </ul>
      )}
      <NewRule onRule={onRule} />
    </>
  );
}

function NewRule({ onRule }: { onRule: (shape: Shape | Ship) => void }) {
  const [kind, setKind] = useState<(typeof RULES)[number]>('gather');
  const [what, setWhat] = useState('');
  const [name, setName] = useState('');
  const box = 'mt-0.5 h-7 w-full rounded border border-line bg-paper px-2 py-0.5 text-ink';
  const matched: Match = what.startsWith('package:') ? { package: what.slice(8).trim() } : { path: what.trim() };
  const ready = what.trim() !== '' && (kind !== 'gather' || name.trim() !== '');
  return (
    <form
      className="mt-4 space-y-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (!ready) return;
        if (kind === 'gather') onRule({ kind, name: name.trim(), match: matched });
        else if (kind === 'apart' || kind === 'style in script') onRule({ kind, match: matched });
        else onRule({ kind, modules: what.split(',').map((p) => p.trim()) });
        setWhat('');
        setName('');
      }}
    >
      <PickField
        label="New rule"
        value={kind}
        options={[
          { value: 'gather', label: 'gather into a chunk of its own' },
          { value: 'together', label: 'keep modules together' },
          { value: 'apart', label: 'keep apart from the rest' },
          { value: 'style in script', label: 'carry styles in script' },
        ]}
        onTake={setKind}
      />
      <label className="block text-soft">
        {kind === 'together' ? 'Paths of modules, with commas between' : 'Path pattern, or package:NAME'}
        <input
          value={what}
          spellCheck={false}
          placeholder={kind === 'together' ? 'src/a.ts, src/b.ts' : 'src/admin/**'}
          onChange={(event) => setWhat(event.target.value)}
          className={box}
        />
      </label>
      {kind === 'gather' ? (
        <label className="block text-soft">
          Name of the chunk
          <input value={name} maxLength={80} onChange={(event) => setName(event.target.value)} className={box} />
        </label>
      ) : null}
      <button
        type="submit"
        disabled={!ready}
        className="rounded bg-ink px-3 py-1 font-medium text-on-ink disabled:opacity-40"
      >
        Add the rule
      </button>
    </form>
  );
}
