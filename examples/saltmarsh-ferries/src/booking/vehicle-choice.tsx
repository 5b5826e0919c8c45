import type { Form } from '@saltmarsh/formrig';
import { VEHICLES } from '../fares/vehicle-tables';
import { money } from '../shared/format';

export function VehicleChoice({ form }: { form: Form<{ vehicle: string }> }) {
  return (
    <fieldset class="choice">
      {VEHICLES.map((v) => (
        <label><input type="radio" name="vehicle" checked={form.values.vehicle === v.code} /> {v.name}, {money(v.pence)}</label>
      ))}
    </fieldset>
  );
}
