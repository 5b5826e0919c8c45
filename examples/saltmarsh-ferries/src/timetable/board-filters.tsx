import { ISLANDS } from '../home/islands';
import { messages } from '../shared/messages';

export function BoardFilters({ to, onTo }: { to: string; onTo: (to: string) => void }) {
  return (
    <div class="filters" role="group" aria-label={messages.filter}>
      {ISLANDS.map((island) => (
        <button type="button" aria-pressed={to === island.name} onClick={() => onTo(to === island.name ? '' : island.name)}>
          {island.name}
        </button>
      ))}
    </div>
  );
}
