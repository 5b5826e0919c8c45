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
