import { Route } from 'react-router-dom';
import Mill from './mill';

const pages = [
  ['/mill', Mill],
  ['/mill/stones', Mill],
];

export const millRoutes = pages.map(([path, Page]) => <Route key={path} path={path} component={Page} />);
