'use client';

import { later } from '../later.tsx';

/**
 * A chart of lines. What draws it is fetched with the first chart that is shown. Whoever can't see it gets the same
 * figures as a table or in words beside it: the drawing itself is hidden from assistive technology.
 */
export const LineChart = later(
  () => import('./drawing.tsx').then((m) => m.Drawing),
  // As high as the drawing, so that nothing below moves when it comes.
  ({ height }) => <p className={`${height} text-soft`}>Drawing the curves …</p>,
);
