import { createLazyFileRoute } from '@loft/router';

export const Route = createLazyFileRoute('/races')({ component: Races });

function Races() {
  return <p>Races</p>;
}
