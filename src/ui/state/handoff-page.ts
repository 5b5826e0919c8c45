'use client';

import { create } from 'zustand';

/** What is looked at first: the edits of the source, which most plans are made of. */
export const FIRST_HANDOFF = 'patch';

/** What is looked at of what is handed over; chosen from other places of the workbench as well. */
export const useHandoffPage = create<{ page: string }>()(() => ({ page: FIRST_HANDOFF }));
