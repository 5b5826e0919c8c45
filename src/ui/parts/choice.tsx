'use client';

import { type KeyboardEvent, lazy, Suspense, useState } from 'react';

export interface Option {
  value: string;
  label: string;
  note?: string;
}

export interface ChoiceProps {
  caption: string;
  value: string;
  shown?: string;
  options: Option[];
  onChange: (value: string) => void;
}

export const TRIGGER =
  'flex min-h-11 min-w-0 flex-col items-start justify-center border-r border-line px-3.5 text-left hover:bg-band';
export const LABEL = 'text-[11px] leading-tight whitespace-nowrap text-soft';

/** What stands for the present value. */
export function named({ value, shown, options }: Pick<ChoiceProps, 'value' | 'shown' | 'options'>): string {
  return shown ?? options.find((o) => o.value === value)?.label ?? value;
}

/** Fetches what the lists of choices are made of. */
export const loadChoiceList = () => import('./choice-list.tsx');
const ChoiceList = lazy(() => loadChoiceList().then((m) => ({ default: m.ChoiceList })));

/** Keys that open the list of a choice, besides those that press any button (WAI-ARIA Authoring Practices, select-only combobox). */
const OPENS = new Set(['ArrowDown', 'ArrowUp']);

/**
 * A labelled choice in the top bar or in a sheet: caption above, value below. What its list is made of is fetched with the first look at it: a page
 * answers earlier without.
 */
export function Choice(props: ChoiceProps) {
  const [asked, setAsked] = useState(false);
  const name = named(props);
  const closed = (
    <button
      type="button"
      role="combobox"
      aria-expanded={false}
      aria-busy={asked}
      aria-label={`${props.caption}: ${name}`}
      onClick={() => setAsked(true)}
      onKeyDown={(event: KeyboardEvent) => {
        if (!OPENS.has(event.key)) return;
        event.preventDefault();
        setAsked(true);
      }}
      className={TRIGGER}
    >
      <span className={LABEL}>{props.caption}</span>
      <span className="max-w-56 truncate font-medium leading-tight">{name}</span>
    </button>
  );
  if (!asked) return closed;
  return (
    <Suspense fallback={closed}>
      <ChoiceList {...props} />
    </Suspense>
  );
}
