import type { Browser } from 'playwright-core';

export function launchBrowser(timeout?: number): Promise<Browser>;
