import { later, useCell } from '@saltmarsh/view';
import type { Sailing } from '../shared/types';
import { lateness, leavesAt } from '../shared/format';
import { tideWord } from '../shared/tide-level';
import { messages } from '../shared/messages';
import { TicketDialog } from '../tickets/ticket-dialog';

const LineBadge = later(() => import('./line-badge'));
const BerthChip = later(() => import('./berth-chip'));
const WeatherStrip = later(() => import('./weather-strip'));
const TideNote = later(() => import('./tide-note'));

export function DepartureBoard({ sailings }: { sailings: Sailing[] }) {
  const [chosen, setChosen] = useCell<Sailing | null>(null);
  return (
    <section>
      <WeatherStrip />
      <table class="board">
        <tbody>
          {sailings.map((s) => (
            <tr>
              <td><LineBadge to={s.to} /> {leavesAt(s.leaves)}</td>
              <td><a href={`/sailings/${s.id}`}>{s.to}</a></td>
              <td><BerthChip number={s.berth} /></td>
              <td class={s.late ? 'late' : ''}>{lateness(s.late)} · {tideWord(s.leaves % 1)}</td>
              <td><button type="button" onClick={() => setChosen(s)}>{messages.makeTicket}</button></td>
            </tr>
          ))}
        </tbody>
      </table>
      <TideNote />
      {chosen ? <TicketDialog sailing={chosen} onClose={() => setChosen(null)} /> : null}
    </section>
  );
}
