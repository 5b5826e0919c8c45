import { Pill } from './pill.tsx';

/** One of a few, as a row of pills; `legend` says of what. */
export function Pills<T extends string | number>({
  legend,
  options,
  chosen,
  words = String,
  onChoose,
}: {
  legend: string;
  options: readonly T[];
  chosen: T;
  words?: (option: T) => string;
  onChoose: (option: T) => void;
}) {
  return (
    <fieldset className="flex shrink-0 gap-1">
      <legend className="sr-only">{legend}</legend>
      {options.map((option) => (
        <Pill key={option} on={option === chosen} onClick={() => onChoose(option)}>
          {words(option)}
        </Pill>
      ))}
    </fieldset>
  );
}

/** How far a drawing is enlarged, in words. */
export function zoomWords(zoom: number): string {
  return zoom === 1 ? 'fit' : `${zoom}×`;
}
