'use client';

import { later } from '../later.tsx';

/**
 * A chart of lines. What draws it is fetched with the first chart that is shown. Whoever can't see it gets the same
 * figures as a table or in words beside it: the drawing itself is hidden from assistive technology.
 */
export const LineChart = later(
  () => import('./drawing.tsx').then((m) => m.Drawing),
  () => <p className="h-32 text-soft">Drawing the curves …</p>,
);
