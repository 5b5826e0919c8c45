'use client';

import { create } from 'zustand';
import type { Recording } from '../../core/recordings/types.ts';
import type { RequestRole } from '../../core/sim/types.ts';

interface StartupView {
  zoom: number;
  /** Roles that are folded away. */
  hidden: ReadonlySet<RequestRole>;
  /** Only what this part of the screen waits for; null: everything. */
  part: string | null;
  /** The instant at which the screen is shown, in ms; null: when it is interactive. */
  at: number | null;
  /** A recording of the real app that lies under the prediction. */
  under: { name: string; recording: Recording } | null;
}

/** How the startup is looked at: nothing of it changes what is predicted. */
export const useStartupView = create<StartupView>()(() => ({
  zoom: 1,
  hidden: new Set(),
  part: null,
  at: null,
  under: null,
}));
