import { rig } from '@saltmarsh/formrig';
import { money } from '../shared/format';
import { messages } from '../shared/messages';
import { validCard } from './card-check';

export default function Payment({ total, onPaid }: { total: number; onPaid: () => void }) {
  const form = rig({ card: '', until: '' });
  return (
    <form onSubmit={() => validCard(form.values.card) && onPaid()}>
      <label>Card <input name="card" inputmode="numeric" /></label>
      <button type="submit">{messages.pay} {money(total)}</button>
    </form>
  );
}
