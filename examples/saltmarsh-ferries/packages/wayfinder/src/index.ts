import type { Component } from '@saltmarsh/view';
import { compile, type Matcher } from './match.ts';

export interface RouteEntry {
  path: string;
  page?: Component | (() => Promise<{ default: Component }>);
  layout?: Component | (() => Promise<{ default: Component }>);
  children?: RouteEntry[];
}

/** Finds the chain of entries for an address. */
export function follow(table: RouteEntry[], address: string): RouteEntry[] {
  for (const entry of table) {
    const match: Matcher = compile(entry.path);
    const rest = match(address.replace(/^\//, ''))?.replace(/^\//, '');
    // What has nothing below it takes the whole address.
    if (rest === undefined || (rest !== '' && !entry.children)) continue;
    return entry.children ? [entry, ...follow(entry.children, rest)] : [entry];
  }
  return [];
}

export function go(address: string): void {
  history.pushState(null, '', address);
  dispatchEvent(new PopStateEvent('popstate'));
}
