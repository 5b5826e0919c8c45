const DAYS = Array.from({ length: 28 }, (_, day) => day + 1);

export default function Calendar({ loan }) {
  return <ol aria-label={loan.title}>{DAYS.map((d) => <li key={d}>{d}</li>)}</ol>;
}
