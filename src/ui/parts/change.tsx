/** A change against the baseline: direction by arrow and colour, never by colour alone. */
export function Change({
  value,
  format,
  lowerIsBetter = true,
}: {
  value: number;
  format: (v: number) => string;
  lowerIsBetter?: boolean;
}) {
  if (!Number.isFinite(value) || format(Math.abs(value)) === format(0)) return <span className="text-soft">same</span>;
  const better = lowerIsBetter ? value < 0 : value > 0;
  return (
    <span className={better ? 'text-better' : 'text-worse'}>
      {value < 0 ? '▾' : '▴'} {format(Math.abs(value))}
      <span className="sr-only">{better ? ' better' : ' worse'} than the baseline</span>
    </span>
  );
}
