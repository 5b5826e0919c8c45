'use client';

import { Select } from 'radix-ui';

export interface Option {
  value: string;
  label: string;
  note?: string;
}

/** A labelled choice in the top bar or in a sheet: caption above, value below. */
export function Choice({
  caption,
  value,
  shown,
  options,
  onChange,
}: {
  caption: string;
  value: string;
  shown?: string;
  options: Option[];
  onChange: (value: string) => void;
}) {
  const current = options.find((o) => o.value === value);
  return (
    <Select.Root value={value} onValueChange={onChange}>
      <Select.Trigger
        aria-label={`${caption}: ${shown ?? current?.label ?? value}`}
        className="flex min-h-11 min-w-0 flex-col items-start justify-center border-r border-line px-3.5 text-left hover:bg-band"
      >
        <span className="text-[11px] leading-tight whitespace-nowrap text-soft">{caption}</span>
        <span className="max-w-56 truncate font-medium leading-tight">{shown ?? current?.label ?? value}</span>
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
