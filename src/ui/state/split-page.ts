'use client';

import { create } from 'zustand';

/** Which page of Split is open; chosen from other places of the workbench as well. */
export const useSplitPage = create<{ page: string }>()(() => ({ page: 'imports' }));
