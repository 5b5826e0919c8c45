import { createFileRoute, Outlet } from '@loft/router';

export const Route = createFileRoute('/birds')({ loader: () => fetch('/api/birds'), component: Birds });

function Birds() {
  return (
    <section>
      <h1>Birds</h1>
      <Outlet />
    </section>
  );
}
