import { createRootRoute, Outlet } from '@loft/router';

export const Route = createRootRoute({ component: Root });

function Root() {
  return (
    <>
      <header>Loft</header>
      <Outlet />
    </>
  );
}
