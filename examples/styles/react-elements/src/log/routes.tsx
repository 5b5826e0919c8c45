import { Route } from 'react-router-dom';
import { Entry } from './entry';
import { Log } from './log';

export function logRoutes() {
  return (
    <>
      <Route index element={<Log />} />
      <Route path=":day" element={<Entry />} />
    </>
  );
}
