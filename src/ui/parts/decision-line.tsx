import { X } from 'lucide-react';
import { decisionWords } from '../../core/plan/decisions.ts';
import type { Decision } from '../../core/plan/types.ts';

/** A decision in words with what is wrong with it, to be taken back. */
export function DecisionLine({
  decision,
  note,
  troubles,
  onTakeBack,
}: {
  decision: Decision;
  note?: string;
  troubles: string[];
  onTakeBack: () => void;
}) {
  const words = decisionWords(decision);
  return (
    <li className="flex items-baseline gap-2 border-t border-line py-1">
      <span className="min-w-0 flex-1">
        {words}
        {troubles.map((t) => (
          <span key={t} className="block text-worse">
            {t}
          </span>
        ))}
      </span>
      {note ? <span className="shrink-0 text-[11px] text-soft">{note}</span> : null}
      <button
        type="button"
        aria-label={`Remove: ${words}`}
        className="min-h-6 min-w-6 self-center text-soft hover:text-worse"
        onClick={onTakeBack}
      >
        <X size={13} />
      </button>
    </li>
  );
}
