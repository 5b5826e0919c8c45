import type { Form } from '@saltmarsh/formrig';

export function PassengerFields({ form }: { form: Form<{ adults: number; children: number }> }) {
  return (
    <fieldset class="choice">
      <label>Adults <input type="number" min="1" max="9" value={form.values.adults} /></label>
      <label>Children <input type="number" min="0" max="9" value={form.values.children} /></label>
    </fieldset>
  );
}
