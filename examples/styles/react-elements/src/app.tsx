import { lazy, Suspense } from 'react';
import { Navigate, Route, Routes } from 'react-router-dom';
import { KeeperOnly } from './auth/keeper-only';
import { withTide } from './auth/with-tide';
import { SiteLayout } from './frame/site-layout';
import { Spinner } from './frame/spinner';
import { Birds, Home } from './pages';
import * as station from './station';
import { paths } from './paths';
import { logRoutes } from './log/routes';
import Tides from './tides/tides';
import { ringRoutes } from './ring-routes';

const Map = lazy(() => import('./map/map'));
const Report = lazy(() => import('./report').then((m) => ({ default: m.YearlyReport })));

const LateMap = () => (
  <Suspense fallback={<Spinner />}>
    <Map />
  </Suspense>
);

export function App() {
  return (
    <Routes>
      <Route element={<SiteLayout />}>
        <Route index element={<Home />} />
        <Route path={paths.birds.all} element={<Birds />} />
        <Route path={paths.birds.one} lazy={() => import('./bird')} />
        <Route path="map" element={<LateMap />} />
        <Route
          path="report"
          element={
            <KeeperOnly>
              <Suspense fallback={<Spinner />}>
                <Report />
              </Suspense>
            </KeeperOnly>
          }
        />
        <Route path="station" Component={station.Station} />
        <Route path="high-water" element={withTide(HighWater)} />
        <Route path="log">{logRoutes()}</Route>
        <Route path="tides/*" element={<Tides />} />
        {ringRoutes}
        <Route path="harbour" element={<Navigate to="/station" replace />} />
      </Route>
      <Route path="*" element={<p>There is no such page.</p>} />
    </Routes>
  );
}

function HighWater() {
  return <p>High water at six.</p>;
}
