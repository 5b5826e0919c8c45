import { lazy } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter, Redirect, Route, Switch, withRouter } from 'react-router-dom';
import Apples from './apples';
import Cellar from './cellar';
import { KeyRoute } from './key-route';
import Lost from './lost';
import { millRoutes } from './mill-routes';
import Press from './press';
import Yard from './yard';

const Ledger = lazy(() => import('./ledger'));

const cellarRoutes = (
  <>
    <Route exact path="/cellar" component={Cellar} />
    <Route path="/cellar/casks" render={() => <Cellar casks />} />
  </>
);

function App() {
  return (
    <BrowserRouter>
      <Switch>
        <Route exact path="/" component={Yard} />
        <Route path={['/apples', '/pears']}>
          <Apples />
        </Route>
        <KeyRoute path="/press" component={withRouter(Press)} />
        <KeyRoute path="/ledger" children={<Ledger />} />
        {cellarRoutes}
        {millRoutes}
        {tours.map((tour) => (
          <Route key={tour.path} path={tour.path} component={tour.page} />
        ))}
        <Redirect from="/barn" to="/" />
        <Route component={Lost} />
      </Switch>
    </BrowserRouter>
  );
}

const tours = JSON.parse(document.getElementById('tours').textContent);

createRoot(document.getElementById('root')).render(<App />);
