import { createFileRoute } from '@loft/router';
import { Weather } from '../weather';

export const Route = createFileRoute('/')({ component: Home });

function Home() {
  return <Weather />;
}
