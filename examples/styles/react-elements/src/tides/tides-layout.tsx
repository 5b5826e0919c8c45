import { Outlet } from 'react-router-dom';

export const TidesLayout = () => <Outlet />;
