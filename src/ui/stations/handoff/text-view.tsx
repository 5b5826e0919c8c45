/** A text that is only looked at and copied from. */
export function TextView({ name, text }: { name: string; text: string }) {
  return (
    <textarea
      readOnly
      aria-label={name}
      value={text}
      spellCheck={false}
      wrap="off"
      className="min-h-0 flex-1 resize-none overflow-auto rounded border border-line bg-sheet p-3 font-mono text-[12px] leading-relaxed"
    />
  );
}
