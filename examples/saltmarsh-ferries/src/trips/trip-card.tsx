import { leavesAt, onDay } from '../shared/format';
import { messages } from '../shared/messages';
import type { Trip } from '../shared/types';

export function TripCard({ trip, onPrint }: { trip: Trip; onPrint: () => void }) {
  const edge = ['hull', 'edge', trip.places > 2 ? 'lamp' : 'fog'].join('-');
  return (
    <article class={`trip ${edge}`}>
      <div class={`hull-tint-${trip.places > 2 ? 'shell' : 'dawn'}`}>
        <h3>{trip.sailing.from} – {trip.sailing.to}</h3>
        <p>{onDay(trip.sailing.leaves)} {leavesAt(trip.sailing.leaves)} · {trip.places} places</p>
      </div>
      <button type="button" onClick={onPrint}>{messages.print}</button>
    </article>
  );
}
