'use client';

import { create } from 'zustand';

/** What is looked at first. */
export const FIRST_SPLIT = 'imports';

/** Which page of Split is open; chosen from other places of the workbench as well. */
export const useSplitPage = create<{ page: string }>()(() => ({ page: FIRST_SPLIT }));
