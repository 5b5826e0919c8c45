import { Outlet } from '@remix-run/react';

export default () => <Outlet />;
