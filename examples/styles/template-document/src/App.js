import React, { lazy, Suspense } from 'react';
import { Route, Routes } from 'react-router-dom';
import Layout from './Layout';
import Flours from './pages/Flours';

const Orders = lazy(() => import('./pages/Orders'));

export default function App() {
  return (
    <Routes>
      <Route path="/" element={<Layout />}>
        <Route index element={<Flours />} />
        <Route
          path="orders"
          element={
            <Suspense fallback={null}>
              <Orders />
            </Suspense>
          }
        />
      </Route>
    </Routes>
  );
}
