'use client';

import { create } from 'zustand';

/** What is looked at of what is handed over; chosen from other places of the workbench as well. */
export const useHandoffPage = create<{ page: string }>()(() => ({ page: 'ways' }));
