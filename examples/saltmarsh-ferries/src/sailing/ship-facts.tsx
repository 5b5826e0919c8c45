import { SHIPS } from './ships';

export function ShipFacts({ name }: { name: string }) {
  const ship = SHIPS.find((s) => s.name === name) ?? SHIPS[0];
  return (
    <dl class="facts">
      <dt>Built</dt><dd>{ship.built}</dd>
      <dt>Length</dt><dd>{ship.metres} m</dd>
      <dt>Places</dt><dd>{ship.places}</dd>
    </dl>
  );
}
