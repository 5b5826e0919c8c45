'use client';

import { type ReactNode, useEffect, useId, useRef, useState } from 'react';

const BOX =
  'w-full min-w-0 rounded border border-transparent bg-transparent px-1.5 py-0.5 hover:border-line focus:border-line focus:bg-paper aria-invalid:border-worse';
const FRAMED = 'h-7 w-full min-w-0 rounded border border-line bg-paper px-2 py-0.5 aria-invalid:border-worse';

interface Common {
  label: string;
  /** In a table the label is read out but not shown, and the frame shows only on touch. */
  bare?: boolean;
}

/** A text that is taken when the person leaves it or presses Enter; Escape brings back what was there. */
export function TextField({
  label,
  value,
  onTake,
  check,
  bare = false,
  placeholder,
  suggestions,
  mono = false,
}: Common & {
  value: string;
  onTake: (value: string) => void;
  /** What is wrong with a text, in words; null when nothing is. */
  check?: (value: string) => string | null;
  placeholder?: string;
  /** What can be meant by what is written so far. */
  suggestions?: (text: string) => string[];
  mono?: boolean;
}) {
  const id = useId();
  const [text, setText] = useState(value);
  const [trouble, setTrouble] = useState<string | null>(null);
  const given = useRef(value);
  useEffect(() => {
    given.current = value;
    setText(value);
    setTrouble(null);
  }, [value]);
  const take = () => {
    const next = text.trim();
    if (next === given.current) {
      setTrouble(null);
      return;
    }
    const wrong = check?.(next) ?? null;
    setTrouble(wrong);
    if (wrong === null) onTake(next);
  };
  const offered = suggestions && text !== value ? suggestions(text) : [];
  return (
    <Labelled id={id} label={label} bare={bare} trouble={trouble}>
      <input
        id={id}
        value={text}
        placeholder={placeholder}
        spellCheck={false}
        list={suggestions ? `${id}-list` : undefined}
        aria-invalid={trouble !== null}
        aria-describedby={trouble ? `${id}-trouble` : undefined}
        onChange={(event) => setText(event.target.value)}
        onBlur={take}
        onKeyDown={(event) => {
          if (event.key === 'Enter') take();
          if (event.key !== 'Escape') return;
          event.stopPropagation();
          setText(value);
          setTrouble(null);
        }}
        className={`${bare ? BOX : FRAMED} ${mono ? 'font-mono text-[12px]' : ''}`}
      />
      {suggestions ? (
        <datalist id={`${id}-list`}>
          {offered.map((o) => (
            <option key={o} value={o} />
          ))}
        </datalist>
      ) : null}
    </Labelled>
  );
}

/** A number with its unit, taken like a text. */
export function NumberField({
  label,
  value,
  unit,
  least = 0,
  most,
  onTake,
  bare = false,
}: Common & { value: number | null; unit: string; least?: number; most: number; onTake: (value: number) => void }) {
  return (
    <div className="flex items-end gap-1">
      <div className={bare ? 'w-11' : 'w-28'}>
        <TextField
          label={label}
          bare={bare}
          value={value === null ? '' : String(value)}
          placeholder={value === null ? 'unknown' : undefined}
          check={(text) => {
            const n = Number(text);
            return text !== '' && n >= least && n <= most ? null : `Give a number from ${least} to ${most}.`;
          }}
          onTake={(text) => onTake(Number(text))}
        />
      </div>
      <span className={`text-soft ${bare ? 'pb-0.5' : 'pb-1'}`}>{unit}</span>
    </div>
  );
}

/** One of a few. */
export function PickField<T extends string>({
  label,
  value,
  options,
  onTake,
  bare = false,
}: Common & { value: T; options: readonly { value: T; label: string }[]; onTake: (value: T) => void }) {
  const id = useId();
  return (
    <Labelled id={id} label={label} bare={bare} trouble={null}>
      <select
        id={id}
        value={value}
        onChange={(event) => onTake(event.target.value as T)}
        className={bare ? `${BOX} -ml-0.5 h-[26px]` : FRAMED}
      >
        {options.map((o) => (
          <option key={o.value} value={o.value}>
            {o.label}
          </option>
        ))}
      </select>
    </Labelled>
  );
}

function Labelled({
  id,
  label,
  bare,
  trouble,
  children,
}: {
  id: string;
  label: string;
  bare: boolean;
  trouble: string | null;
  children: ReactNode;
}) {
  return (
    <div className="relative min-w-0">
      <label htmlFor={id} className={bare ? 'sr-only' : 'mb-0.5 block whitespace-nowrap text-soft'}>
        {label}
      </label>
      {children}
      {trouble ? (
        <p
          id={`${id}-trouble`}
          role="alert"
          className={`text-worse ${bare ? 'absolute top-full left-0 z-10 w-64 rounded border border-line bg-sheet px-2 py-1 shadow' : 'mt-0.5'}`}
        >
          {trouble}
        </p>
      ) : null}
    </div>
  );
}
