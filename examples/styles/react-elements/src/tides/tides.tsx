import { Route, Routes } from 'react-router-dom';
import { TidesLayout } from './tides-layout';
import { Today } from './today';
import { Week } from './week';

export default function Tides() {
  return (
    <Routes>
      <Route path="/" element={<TidesLayout />}>
        <Route index element={<Today />} />
        <Route path="week" element={<Week />} />
      </Route>
    </Routes>
  );
}
