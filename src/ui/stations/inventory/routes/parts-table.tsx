'use client';

import { Plus, X } from 'lucide-react';
import type { Part, PartCondition, PartPlace, Route } from '../../../../core/snapshot/route-types.ts';
import { NumberField, PickField, TextField } from '../../../parts/field.tsx';
import { useModules } from './use-modules.ts';

const PLACES: { value: PartPlace; label: string }[] = [
  { value: 'first screen', label: 'first screen' },
  { value: 'below', label: 'below' },
  { value: 'action', label: 'on an action' },
  { value: 'conditional', label: 'conditional' },
];

const CONDITIONS: { value: PartCondition['kind']; label: string }[] = [
  { value: 'media', label: 'on screens' },
  { value: 'answer', label: 'by answer of' },
  { value: 'segment', label: 'for visitors' },
  { value: 'one of', label: 'one of' },
];

const WIDEST = 100_000;

/** The parts of a route's screen, each a row whose fields can be changed in place. */
export function PartsTable({ route, onChange }: { route: Route; onChange: (parts: Part[], what: string) => void }) {
  const put = (at: number, part: Part, what: string) => onChange(route.parts.with(at, part), `${part.name} ${what}`);
  const add = () => {
    let n = route.parts.length + 1;
    while (route.parts.some((p) => p.id === `part ${n}`)) n++;
    const id = `part ${n}`;
    const part: Part = {
      id,
      name: id,
      module: route.page,
      place: 'first screen',
      interactive: true,
      share: 1,
      needs: [],
    };
    onChange([...route.parts, part], 'one part more');
  };
  return (
    <section>
      <div className="flex items-baseline justify-between">
        <h2 className="font-semibold">Parts of its screen</h2>
        <button type="button" onClick={add} className="flex items-center gap-1 text-soft hover:text-ink">
          <Plus size={13} /> part
        </button>
      </div>
      {route.parts.length === 0 ? (
        <p className="mt-1 text-soft">
          None yet: the whole page counts as one. Name a part to say where it stands and when its code is needed.
        </p>
      ) : (
        <table className="mt-1 w-full table-fixed">
          <thead className="text-left text-soft">
            <tr>
              <th className="w-[17%] py-1 pl-1.5 font-normal">part</th>
              <th className="w-[25%] pl-1.5 font-normal">drawn by</th>
              <th className="w-[15%] pl-1.5 font-normal">where</th>
              <th className="pl-1.5 font-normal">when</th>
              <th className="w-[76px] pl-1.5 font-normal">visits</th>
              <th className="w-[58px] font-normal" title="Whether it answers to the person, and so needs its script">
                answers
              </th>
              <th className="w-6">
                <span className="sr-only">remove</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {route.parts.map((part, at) => (
              <PartRow
                key={part.id}
                part={part}
                route={route}
                put={(next, what) => put(at, next, what)}
                onRemove={() => onChange(route.parts.toSpliced(at, 1), `without ${part.name}`)}
              />
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

function PartRow({
  part,
  route,
  put,
  onRemove,
}: {
  part: Part;
  route: Route;
  put: (part: Part, what: string) => void;
  onRemove: () => void;
}) {
  const modules = useModules();
  return (
    <tr className="border-t border-line align-top">
      <td className="py-0.5">
        <TextField
          bare
          label="name"
          value={part.name}
          check={(name) => (name === '' ? 'Give it a name.' : null)}
          onTake={(name) => put({ ...part, name }, 'renamed')}
        />
      </td>
      <td className="py-0.5">
        <TextField
          bare
          label={`module of ${part.name}`}
          value={part.module}
          check={modules.trouble}
          suggestions={modules.like}
          onTake={(module) => put({ ...part, module }, `drawn by ${module}`)}
        />
        {part.evidence ? (
          <p className="truncate px-1.5 text-[11px] text-soft" title={`${part.evidence.path}:${part.evidence.line}`}>
            {part.evidence.path}, line {part.evidence.line}
          </p>
        ) : null}
      </td>
      <td className="py-0.5">
        <PickField
          bare
          label={`place of ${part.name}`}
          value={part.place}
          options={PLACES}
          onTake={(place) => put(placed(part, place), place)}
        />
      </td>
      <td className="py-0.5">
        <When part={part} route={route} onTake={(next, what) => put(next, what)} />
      </td>
      <td className="py-0.5">
        <NumberField
          bare
          label={`share of visits that need ${part.name}`}
          unit="%"
          most={100}
          value={Math.round(part.share * 100)}
          onTake={(percent) => put({ ...part, share: percent / 100 }, `in ${percent} % of visits`)}
        />
      </td>
      <td className="pt-1.5 text-center">
        <input
          type="checkbox"
          aria-label={`${part.name} answers`}
          checked={part.interactive}
          onChange={(event) =>
            put({ ...part, interactive: event.target.checked }, event.target.checked ? 'answers' : 'is still')
          }
        />
      </td>
      <td className="pt-1">
        <button
          type="button"
          aria-label={`Remove ${part.name}`}
          className="min-h-6 min-w-6 text-soft hover:text-worse"
          onClick={onRemove}
        >
          <X size={14} />
        </button>
      </td>
    </tr>
  );
}

/** The words of an action, or the kind of a condition with what belongs to it. */
function When({ part, route, onTake }: { part: Part; route: Route; onTake: (part: Part, what: string) => void }) {
  if (part.place === 'action')
    return (
      <TextField
        bare
        label={`action for ${part.name}`}
        placeholder="what the person does"
        value={part.action ?? ''}
        onTake={(action) => onTake({ ...part, action }, `on “${action}”`)}
      />
    );
  if (part.place !== 'conditional' || !part.condition) return <DrawnAfter part={part} route={route} onTake={onTake} />;
  const { condition } = part;
  const take = (next: PartCondition) => onTake({ ...part, condition: next }, 'on another condition');
  return (
    <div className="grid grid-cols-2">
      <PickField
        bare
        label={`condition of ${part.name}`}
        value={condition.kind}
        options={CONDITIONS}
        onTake={(kind) => take(conditionOf(kind, route))}
      />
      {condition.kind === 'media' ? (
        <MediaField part={part} condition={condition} onTake={take} />
      ) : condition.kind === 'answer' ? (
        <TextField
          bare
          label="call"
          value={condition.of}
          suggestions={() => route.data.map((d) => d.id)}
          onTake={(of) => take({ kind: 'answer', of })}
        />
      ) : condition.kind === 'segment' ? (
        <TextField
          bare
          label="kind of visitors"
          value={condition.segment}
          onTake={(segment) => take({ kind: 'segment', segment })}
        />
      ) : (
        <TextField bare label="group" value={condition.group} onTake={(group) => take({ kind: 'one of', group })} />
      )}
    </div>
  );
}

/** The calls without whose answers a part of the screen isn't drawn. */
function DrawnAfter({ part, route, onTake }: { part: Part; route: Route; onTake: (part: Part, what: string) => void }) {
  const usual = part.place === 'below' ? 'when in view' : 'at start';
  const { drawnAfter = [] } = part;
  if (route.data.length === 0 && drawnAfter.length === 0)
    return <span className="block px-1.5 py-1 text-soft">{usual}</span>;
  const ids = route.data.map((d) => d.id);
  return (
    <TextField
      bare
      label={`answers that ${part.name} is drawn after`}
      placeholder={usual}
      value={drawnAfter.length > 0 ? `after ${drawnAfter.join(', ')}` : ''}
      suggestions={() => ids.map((id) => `after ${id}`)}
      check={(text) => {
        const lost = callsIn(text).find((id) => !ids.includes(id));
        return lost === undefined ? null : `There is no call ${lost}.`;
      }}
      onTake={(text) => {
        const { drawnAfter: _, ...rest } = part;
        const after = callsIn(text);
        if (after.length > 0) onTake({ ...rest, drawnAfter: after }, `drawn after ${after.join(', ')}`);
        else onTake(rest, 'drawn at once');
      }}
    />
  );
}

/** `after orders, prices`: names of calls. */
function callsIn(text: string): string[] {
  const names = text.trim().replace(/^after\s/, '');
  return names.split(',').flatMap((name) => name.trim() || []);
}

const WIDTHS = /^(≤|<=|≥|>=)\s*(\d+)(?:\s*px)?$/;

function MediaField({
  part,
  condition,
  onTake,
}: {
  part: Part;
  condition: PartCondition & { kind: 'media' };
  onTake: (next: PartCondition) => void;
}) {
  const said =
    condition.maxWidth !== undefined
      ? `≤ ${condition.maxWidth} px`
      : condition.minWidth !== undefined
        ? `≥ ${condition.minWidth} px`
        : '';
  return (
    <TextField
      bare
      label={`width for ${part.name}`}
      placeholder="≤ 640 px"
      value={said}
      check={(text) => {
        const width = Number(WIDTHS.exec(text)?.[2]);
        return width > 0 && width <= WIDEST ? null : 'Write it as ≤ 640 px or ≥ 900 px.';
      }}
      onTake={(text) => {
        const [, sign, width] = WIDTHS.exec(text)!;
        const least = sign === '≥' || sign === '>=';
        onTake({ kind: 'media', ...(least ? { minWidth: Number(width) } : { maxWidth: Number(width) }) });
      }}
    />
  );
}

/** A part at another place, with what belongs to that place and nothing that belongs to another. */
function placed({ action, condition, ...part }: Part, place: PartPlace): Part {
  if (place === 'action') return { ...part, place, action: action ?? '' };
  if (place === 'conditional') return { ...part, place, condition: condition ?? { kind: 'media', maxWidth: 640 } };
  return { ...part, place };
}

function conditionOf(kind: PartCondition['kind'], route: Route): PartCondition {
  switch (kind) {
    case 'media':
      return { kind, maxWidth: 640 };
    case 'answer':
      return { kind, of: route.data[0]?.id ?? 'answer' };
    case 'segment':
      return { kind, segment: 'signed in' };
    case 'one of':
      return { kind, group: 'choice' };
  }
}
