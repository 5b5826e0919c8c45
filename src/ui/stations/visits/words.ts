import type { VisitStep } from '../../../core/visits/types.ts';
import type { MomentView, NextStep } from '../../../worker/services/visits.ts';
import { time } from '../../parts/format.ts';

/** A moment in words, as in `opens fare calculator`. */
export function momentWords(moment: MomentView, step: VisitStep | undefined): string {
  if (!step) return 'lands on';
  switch (step.does) {
    case 'act':
      return `opens ${moment.name}`;
    case 'scroll':
      return `scrolls to ${moment.name}`;
    case 'move':
      return step.by === 'inside' ? `goes to ${step.to}` : `opens ${step.to}`;
    case 'approach':
      return `hovers or focuses what leads to ${'part' in step ? moment.name : step.to}`;
    case 'resize':
      return `screen becomes ${step.width} × ${step.height}`;
    case 'deploy':
      return 'the app is deployed again';
    case 'return':
      if (moment.kind === 'other') return 'the app is deployed again';
      return `returns to ${step.to} after ${away(step.awayMs)}`;
  }
}

export function away(ms: number): string {
  const hours = ms / 3_600_000;
  if (hours >= 24) return `${Math.round(hours / 24)} d`;
  return hours >= 1 ? `${Math.round(hours)} h` : time(ms);
}

/** What the person looked at until the moment showed. */
export function meanwhile({ standIn, kind, wait, failed }: MomentView): string {
  if (failed === 'told') return 'a message that it could not be loaded';
  if (failed === 'silent') return 'nothing happens: its code could not be loaded, and nobody says so';
  if (!Number.isFinite(wait)) return 'it never comes';
  if (standIn)
    return `a placeholder from ${time(standIn.from)} to ${time(standIn.to)}${standIn.flash ? ': it only flashes' : ''}`;
  if (kind === 'landing') return 'a blank page';
  if (kind === 'document' || kind === 'move') return 'the screen before';
  return 'the page as it was';
}

export function nextWords(next: NextStep): string {
  if (next.does === 'move') return next.by === 'inside' ? `goes to ${next.to}` : `opens ${next.to} as a document`;
  return next.does === 'scroll' ? `scrolls to ${next.name}` : `opens ${next.name}`;
}
