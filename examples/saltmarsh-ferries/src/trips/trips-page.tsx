import './trips.css';
import { later, useAfter, useCell } from '@saltmarsh/view';
import { api } from '../shared/api';
import { messages } from '../shared/messages';
import type { Trip } from '../shared/types';
import { TripCard } from './trip-card';

const TicketDialog = later(() => import('../tickets/ticket-dialog'));

export default function TripsPage() {
  const [trips, setTrips] = useCell<Trip[]>([]);
  const [printing, setPrinting] = useCell<Trip | null>(null);
  useAfter(() => void api.trips().then(setTrips));
  if (trips.length === 0) return <main class="trips">{messages.noTrips}</main>;
  return (
    <main class="trips">
      {trips.map((trip) => <TripCard trip={trip} onPrint={() => setPrinting(trip)} />)}
      {printing ? <TicketDialog sailing={printing.sailing} onClose={() => setPrinting(null)} /> : null}
    </main>
  );
}
