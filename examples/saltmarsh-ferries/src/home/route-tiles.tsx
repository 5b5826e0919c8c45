import { ISLANDS } from './islands';

export function RouteTiles() {
  return (
    <div class="tiles">
      {ISLANDS.map((island) => (
        <a class="tile" href={`/timetable?to=${island.code}`}>
          <strong>{island.name}</strong>
          <p>{island.minutes} min · {island.note}</p>
        </a>
      ))}
    </div>
  );
}
