import { Outlet } from 'react-router';
import './app.css';

export default () => <Outlet />;
