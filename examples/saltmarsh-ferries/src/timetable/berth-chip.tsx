import { fill, messages } from '../shared/messages';

export default function BerthChip({ number }: { number: number }) {
  return <span class="chip">{fill(messages.berth, { number })}</span>;
}
