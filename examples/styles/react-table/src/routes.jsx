import { Navigate } from 'react-router-dom';
import { HomeIcon } from './icons';
import { workRoutes } from './work/routes';
import shopRoutes from './shop/routes';
import { load } from './load';
import { Root } from './root';
import { Problem } from './problem';
import { Guard } from './guard';
import { Face } from './face';

const flags = { tours: location.search.includes('tours') };

/** What the menu shows is no table of routes. */
export const menu = [
  { path: '/', label: 'Home', icon: HomeIcon },
  { path: '/work', label: 'Work', icon: HomeIcon },
];

const tours = {
  path: 'tours',
  lazy: async () => {
    const { Tours } = await import('./tours');
    return { Component: Tours };
  },
};

export const routes = [
  {
    path: '/',
    element: <Root />,
    errorElement: <Problem />,
    children: [
      { index: true, lazy: () => import('./home') },
      { path: 'face/:id?', element: <Guard><Face /></Guard>, loader: () => fetch('/face') },
      { path: 'blasting', Component: load(() => import('./blasting')) },
      { element: <Guard />, children: [{ path: 'office', lazy: { Component: async () => (await import('./office')).Office } }] },
      ...(flags.tours ? [tours] : []),
      ...workRoutes,
      { path: 'shop', children: shopRoutes },
      { path: 'quarry', element: <Navigate to="/" /> },
    ],
  },
];
