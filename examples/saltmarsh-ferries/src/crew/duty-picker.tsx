import { useCell } from '@saltmarsh/view';
import { SHIPS } from '../sailing/ships';

export function DutyPicker() {
  const [ship, setShip] = useCell(SHIPS[0].name);
  return (
    <select value={ship} onChange={(e: Event) => setShip((e.target as HTMLSelectElement).value)}>
      {SHIPS.map((s) => <option>{s.name}</option>)}
    </select>
  );
}
