import type { Finding } from '../../core/advise/types.ts';
import { time } from './format.ts';
import { seenWords } from './seen-words.ts';

/** What is worth changing at a station: the best of it, and the way to all. Nothing where there are none. */
export function FindingsHere({ findings, onSee }: { findings: readonly Finding[]; onSee: (best: Finding) => void }) {
  if (findings.length === 0) return null;
  const [best] = findings;
  return (
    <button
      type="button"
      className="mb-1.5 ml-auto flex min-w-0 items-baseline gap-2 px-4 text-soft hover:text-ink"
      onClick={() => onSee(best)}
    >
      <span className="truncate">{best.what}</span>
      <span className="shrink-0 text-better">
        {best.seen ? seenWords(best.effect.seen) : `▾ ${time(-best.effect.cost)}`}
      </span>
      <span className="shrink-0 underline">
        {findings.length === 1 ? 'see it' : `all ${findings.length} findings here`}
      </span>
    </button>
  );
}
