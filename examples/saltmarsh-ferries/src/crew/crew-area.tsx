import './crew.css';
import type { RouteEntry } from '@saltmarsh/wayfinder';
import { useSession } from '../shared/session';
import { CrewBadge } from './crew-badge';

export const crewRoutes: RouteEntry[] = [{ path: 'duty', layout: () => import('./duty-section') }];

export default function CrewArea({ children }: { children?: unknown }) {
  const session = useSession();
  if (!session.crew) return <p>For crew only.</p>;
  return <section class="crew"><CrewBadge name={session.name ?? ''} />{children as never}</section>;
}
