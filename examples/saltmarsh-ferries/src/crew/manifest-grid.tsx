import { useAfter, useCell } from '@saltmarsh/view';
import { api } from '../shared/api';
import { messages } from '../shared/messages';
import { byName } from './sort-names';

export default function ManifestGrid() {
  const [names, setNames] = useCell<string[]>([]);
  useAfter(() => void api.manifest('today').then((list) => setNames(byName(list))));
  return (
    <table class="manifest">
      <caption>{names.length} {messages.aboard}</caption>
      <tbody>{names.map((n, i) => <tr><td>{i + 1}</td><td>{n}</td></tr>)}</tbody>
    </table>
  );
}
