import type { Form } from '@saltmarsh/formrig';
import { CABINS } from './cabins';

export function CabinChoice({ form }: { form: Form<{ cabin: string }> }) {
  return (
    <fieldset class="choice">
      {CABINS.map((c) => (
        <label><input type="radio" name="cabin" checked={form.values.cabin === c.code} /> {c.name}, sleeps {c.sleeps}</label>
      ))}
    </fieldset>
  );
}
