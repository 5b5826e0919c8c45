/** A choice that is on or off, in a row of its like. */
export function Pill({ on, onClick, children }: { on: boolean; onClick: () => void; children: string }) {
  return (
    <button
      type="button"
      aria-pressed={on}
      onClick={onClick}
      className={`rounded-full border px-2.5 py-0.5 disabled:opacity-50 ${on ? 'border-ink bg-ink text-on-ink' : 'border-line enabled:hover:border-ink'}`}
    >
      {children}
    </button>
  );
}
