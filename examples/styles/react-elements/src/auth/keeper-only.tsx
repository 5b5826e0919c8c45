import type { ReactNode } from 'react';

export function KeeperOnly({ children }: { children: ReactNode }) {
  return document.cookie.includes('keeper') ? children : null;
}
