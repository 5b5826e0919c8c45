import './sailing.css';
import { later, useAfter, useCell } from '@saltmarsh/view';
import { api } from '../shared/api';
import { lateness, leavesAt } from '../shared/format';
import type { Sailing } from '../shared/types';
import { ShipFacts } from './ship-facts';
import { Stops } from './stops';

const DeckPlan = later(() => import('../deck/deck-plan'));

export function SailingPage() {
  const [sailing, setSailing] = useCell<Sailing | null>(null);
  const [plan, setPlan] = useCell(false);
  useAfter(() => void api.sailing(location.pathname.split('/')[2]).then(setSailing));
  if (!sailing) return <main class="sailing">…</main>;
  return (
    <main class="sailing">
      <h1>{leavesAt(sailing.leaves)} to {sailing.to}</h1>
      <p>{lateness(sailing.late)}</p>
      <Stops from={sailing.from} to={sailing.to} />
      <ShipFacts name={sailing.ship} />
      <button type="button" onClick={() => setPlan(true)}>Deck plan</button>
      {plan ? <DeckPlan ship={sailing.ship} /> : null}
    </main>
  );
}
