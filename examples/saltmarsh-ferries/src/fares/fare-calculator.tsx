import { rig } from '@saltmarsh/formrig';
import { useCell } from '@saltmarsh/view';
import { money } from '../shared/format';
import { messages } from '../shared/messages';
import { VEHICLES, type Vehicle } from './vehicle-tables';
import { fareFor } from './fare-rules';

export function FareCalculator() {
  const form = rig({ adults: 2, children: 0, vehicle: 'none' as Vehicle['code'] });
  const [total, setTotal] = useCell(0);
  return (
    <form class="fares" onInput={() => setTotal(fareFor(form.values))}>
      <h2>{messages.price}</h2>
      <select name="vehicle">{VEHICLES.map((v) => <option value={v.code}>{v.name}</option>)}</select>
      <output>{money(total)}</output>
    </form>
  );
}
export default FareCalculator;
