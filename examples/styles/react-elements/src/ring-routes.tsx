import { Route } from 'react-router-dom';
import { Rings } from './rings/rings';

export const ringRoutes = [<Route key="all" path="rings" element={<Rings />} />];
