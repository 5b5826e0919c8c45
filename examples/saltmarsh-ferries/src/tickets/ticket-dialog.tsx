import { makeDocument } from '@saltmarsh/paperkit';
import { leavesAt, onDay } from '../shared/format';
import { messages } from '../shared/messages';
import type { Sailing } from '../shared/types';
import { download } from './download';
import { ticketLines } from './ticket-lines';

export function TicketDialog({ sailing, onClose }: { sailing: Sailing; onClose: () => void }) {
  const print = () => {
    const bytes = makeDocument({ title: `${sailing.from} – ${sailing.to}`, lines: ticketLines(sailing) });
    download(`ticket-${sailing.id}.pdf`, bytes);
  };
  return (
    <dialog open>
      <h2>{messages.makeTicket}</h2>
      <p>{onDay(sailing.leaves)}, {leavesAt(sailing.leaves)}</p>
      <button type="button" onClick={print}>{messages.print}</button>
      <button type="button" onClick={onClose}>{messages.cancel}</button>
    </dialog>
  );
}
export default TicketDialog;
