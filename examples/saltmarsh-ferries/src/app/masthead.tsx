import { messages } from '../shared/messages';
import { useSession } from '../shared/session';

const LINKS = [
  ['/timetable', 'timetable'],
  ['/book', 'book'],
  ['/trips', 'trips'],
  ['/harbour', 'harbour'],
  ['/help', 'help'],
] as const;

export function Masthead({ onLogo, nearest }: { onLogo: () => void; nearest: (x: number, y: number) => string }) {
  const session = useSession();
  return (
    <header class="masthead">
      <button type="button" onClick={onLogo}>Saltmarsh Ferries</button>
      <nav>{LINKS.map(([to, key]) => <a href={to}>{messages[key]}</a>)}</nav>
      <button type="button" onClick={() => alert(nearest(session.x, session.y))}>{messages.nearest}</button>
    </header>
  );
}
