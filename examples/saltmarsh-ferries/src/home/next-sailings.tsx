import { useAfter, useCell } from '@saltmarsh/view';
import { api } from '../shared/api';
import { lateness, leavesAt } from '../shared/format';
import type { Sailing } from '../shared/types';

export default function NextSailings() {
  const [sailings, setSailings] = useCell<Sailing[]>([]);
  useAfter(() => void api.next().then(setSailings));
  return (
    <ul class="next">
      {sailings.map((s) => (
        <li>
          <a href={`/sailings/${s.id}`}>{leavesAt(s.leaves)} {s.from} – {s.to}</a>
          <span>{lateness(s.late)}</span>
        </li>
      ))}
    </ul>
  );
}
