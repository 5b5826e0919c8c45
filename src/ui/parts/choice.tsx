'use client';

import { type KeyboardEvent, useState } from 'react';
import { type ChoiceProps, LABEL, named, TRIGGER } from './choice-look.ts';
import { later } from './later.tsx';

/** Fetches what the lists of choices are made of. */
export const loadChoiceList = () => import('./choice-list.tsx').then((m) => m.ChoiceList);

const ChoiceList = later(loadChoiceList, (props: ChoiceProps) => <Closed {...props} busy />);

/** Keys that open the list of a choice, besides those that press any button (WAI-ARIA Authoring Practices, select-only combobox). */
const OPENS = new Set(['ArrowDown', 'ArrowUp']);

/**
 * A labelled choice in the top bar or in a sheet: caption above, value below. What its list is made of is fetched with the first look at it: a page
 * answers earlier without.
 */
export function Choice(props: ChoiceProps) {
  const [asked, setAsked] = useState(false);
  return asked ? <ChoiceList {...props} /> : <Closed {...props} busy={false} onOpen={() => setAsked(true)} />;
}

function Closed({ busy, onOpen, ...props }: ChoiceProps & { busy: boolean; onOpen?: () => void }) {
  const name = named(props);
  return (
    <button
      type="button"
      role="combobox"
      aria-expanded={false}
      aria-busy={busy}
      aria-label={`${props.caption}: ${name}`}
      onClick={onOpen}
      onKeyDown={(event: KeyboardEvent) => {
        if (!OPENS.has(event.key)) return;
        event.preventDefault();
        onOpen?.();
      }}
      className={TRIGGER}
    >
      <span className={LABEL}>{props.caption}</span>
      <span className="max-w-56 truncate font-medium leading-tight">{name}</span>
    </button>
  );
}
