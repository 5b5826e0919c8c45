'use client';

import { Select } from 'radix-ui';
import { type ChoiceProps, LABEL, named, TRIGGER } from './choice-look.ts';

/** A choice whose list has been asked for: it begins open. */
export function ChoiceList({ caption, value, shown, options, onChange }: ChoiceProps) {
  const name = named({ value, shown, options });
  return (
    <Select.Root value={value} onValueChange={onChange} defaultOpen>
      <Select.Trigger aria-label={`${caption}: ${name}`} className={TRIGGER}>
        <span className={LABEL}>{caption}</span>
        <span className="max-w-56 truncate font-medium leading-tight">{name}</span>
      </Select.Trigger>
      <Select.Portal>
        <Select.Content
          position="popper"
          sideOffset={2}
          className="z-50 max-h-[70vh] min-w-52 overflow-hidden rounded border border-line bg-sheet shadow-lg"
        >
          <Select.Viewport className="p-1">
            {options.map((o) => (
              <Select.Item
                key={o.value}
                value={o.value}
                className="flex cursor-pointer items-baseline justify-between gap-6 rounded px-2.5 py-1.5 outline-none data-[highlighted]:bg-mark data-[state=checked]:font-medium"
              >
                <Select.ItemText>{o.label}</Select.ItemText>
                {o.note ? <span className="text-[11px] text-soft">{o.note}</span> : null}
              </Select.Item>
            ))}
          </Select.Viewport>
        </Select.Content>
      </Select.Portal>
    </Select.Root>
  );
}
