/** One of several that are chosen together. */
export function Marked() {
  return (
    <svg width="22" height="28" aria-hidden="true">
      <title>chosen</title>
      <path d="M5,14 l4,4 l8,-9" stroke="var(--ink)" fill="none" strokeWidth="2" />
    </svg>
  );
}
