'use client';

import type { ReactNode } from 'react';
import type { LandingView } from '../../../worker/views.ts';
import type { StripFigure } from './figures.ts';
import { FilesBehind } from './files-behind.tsx';
import { HopsBehind, RequestsBehind, WasteBehind } from './requests-behind.tsx';
import { TimeBehind } from './time-behind.tsx';

const CONTENTS: Record<StripFigure, (view: LandingView) => ReactNode> = {
  'first content': (view) => <TimeBehind view={view} of="firstContent" />,
  interactive: (view) => <TimeBehind view={view} of="interactive" />,
  'start bytes': (view) => <FilesBehind view={view} />,
  'other scripts': (view) => <FilesBehind view={view} />,
  'also fetched': (view) => <FilesBehind view={view} />,
  requests: (view) => <RequestsBehind view={view} />,
  hops: (view) => <HopsBehind view={view} />,
  'wasted bytes': (view) => <WasteBehind view={view} />,
};

/** What a figure of the strip is made of. */
export function Contents({ of, view }: { of: StripFigure; view: LandingView }) {
  return CONTENTS[of](view);
}
