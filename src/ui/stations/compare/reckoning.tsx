import { counted } from '../../../core/text/counted.ts';
import type { Compared } from '../../state/compare.ts';

/** While the first figures are worked out, or why they can't be. */
export function Reckoning({ compared: { plans, done, error } }: { compared: Compared }) {
  if (error) return <p className="p-4 text-worse">{error}</p>;
  return (
    <p className="p-4 text-soft" aria-live="polite">
      Predicting every landing and action: {done} of {counted(plans.length, 'plan')}.
    </p>
  );
}
