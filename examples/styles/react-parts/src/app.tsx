import { createBrowserRouter, RouterProvider } from 'react-router';
import { Shell } from './shell';
import { lazy } from 'react';
const Melt = lazy(() => import('./pages/melt'));
const router = createBrowserRouter([{ path: '/', element: <Shell />, children: [ { index: true, lazy: () => import('./pages/home') }, { path: 'melt', element: <Melt /> } ] }]);
export function App() { return <RouterProvider router={router} />; }
