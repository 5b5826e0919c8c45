import { Outlet } from 'react-router-dom';

export const SiteLayout = () => (
  <main>
    <Outlet />
  </main>
);
