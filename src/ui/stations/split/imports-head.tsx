import type { RefObject } from 'react';
import type { Outline } from '../../../core/outline/outline.ts';
import { shortName } from '../../../core/text/short-name.ts';
import { size } from '../../parts/format.ts';
import { Pills } from '../../parts/pills.tsx';
import { Term } from '../../parts/term.tsx';
import { useLanding } from '../../state/landing.ts';
import type { Filter } from './use-import-choice.ts';

/** What is outlined, how much of it there is, and what of it is listed. */
export function ImportsHead({
  route,
  within,
  outline,
  filter,
  search,
  onFilter,
  onList,
  onBack,
}: {
  route: string;
  /** The split point whose load group is outlined; null for the route's start. */
  within: string | null;
  outline: Outline | null;
  filter: Filter;
  search: RefObject<HTMLInputElement | null>;
  onFilter: (filter: Filter) => void;
  /** Goes from the field on to what was found. */
  onList: () => void;
  onBack: () => void;
}) {
  return (
    <div className="flex flex-wrap items-end justify-between gap-x-4 gap-y-1 px-4 pt-4 pb-2">
      <div className="min-w-0">
        <h1 className="truncate text-[15px] font-semibold">
          What {within ? shortName(within) : route} pulls in
          {within ? (
            <button
              type="button"
              className="ml-3 text-[13px] font-normal text-soft underline hover:text-ink"
              onClick={onBack}
            >
              back to {route}
            </button>
          ) : null}
        </h1>
        <p className="truncate text-soft">
          {outline && within ? `${size(outline.start.compressed)} of modules beside what is there · ` : ''}
          {within ? null : <StartBytes />}
          solid: <Term of="self size">self</Term>, outline: <Term of="retained size">retained size</Term>
        </p>
      </div>
      <div className="flex shrink-0 items-center gap-3">
        <Pills
          legend="Imports by"
          options={['weight', 'folder'] as const}
          chosen={filter.by}
          words={(by) => `by ${by}`}
          onChoose={(by) => onFilter({ ...filter, by })}
        />
        <label className="flex items-center gap-1.5 text-soft">
          <input
            type="checkbox"
            checked={filter.inside}
            onChange={(event) => onFilter({ ...filter, inside: event.target.checked })}
          />
          inside packages
        </label>
        <input
          ref={search}
          type="search"
          value={filter.text}
          placeholder="find  /"
          aria-label="Find an import"
          onChange={(event) => onFilter({ ...filter, text: event.target.value })}
          onKeyDown={(event) => {
            const goesOn = event.key === 'Enter' || event.key === 'ArrowDown';
            if (event.key !== 'Escape' && !goesOn) return;
            event.preventDefault();
            if (goesOn) onList();
            else event.currentTarget.blur();
          }}
          className="w-32 rounded border border-line bg-paper px-2 py-1"
        />
      </div>
    </div>
  );
}

function StartBytes() {
  const start = useLanding((s) => s.now?.readout.startBytes ?? null);
  if (start === null) return null;
  return (
    <>
      {size(start)} at <Term of="start">start</Term> ·{' '}
    </>
  );
}
