export function CrewBadge({ name }: { name: string }) {
  return <span class="crew-badge">{name}</span>;
}
