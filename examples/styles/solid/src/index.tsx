import { Route, Router } from '@kiln/routes';
import { lazy } from 'solid-js';
import { render } from 'solid-js/web';
import { Frame } from './frame';
import Firings from './pages/firings';

const Glazes = lazy(() => import('./pages/glazes'));

render(
  () => (
    <Router root={Frame}>
      <Route path="/" component={Firings} />
      <Route path="/glazes/:id" component={Glazes} />
    </Router>
  ),
  document.getElementById('app')!,
);
