import { createResource, createSignal, For, Show } from 'solid-js';
import { FiringRow } from '../firing-row';
import { NewFiring } from '../new-firing';

export default function Firings() {
  const [rows] = createResource(() => fetch('/api/firings').then((r) => r.json()));
  const [open, setOpen] = createSignal(false);
  return (
    <section>
      <button onClick={() => setOpen(true)}>New firing</button>
      <Show when={open()}>
        <NewFiring />
      </Show>
      <Show when={!rows.loading} fallback={<p>Looking</p>}>
        <ul>
          <For each={rows()}>{(row) => <FiringRow degrees={row.degrees} />}</For>
        </ul>
      </Show>
    </section>
  );
}
