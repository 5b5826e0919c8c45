'use client';

import { createContext, useContext, useMemo } from 'react';
import type { ModuleRow } from '../../../../core/inventory/inventory.ts';

const MOST = 30;

/** The app's modules, for fields that name one. */
export const ModulesContext = createContext<ModuleRow[]>([]);

/** Checks and completes the names of modules. */
export function useModules(): { trouble: (path: string) => string | null; like: (text: string) => string[] } {
  const modules = useContext(ModulesContext);
  return useMemo(() => {
    const known = new Set(modules.map((m) => m.path));
    return {
      trouble: (path) => (known.has(path) ? null : `No module ${path || 'without a name'} was read.`),
      like: (text) => {
        const wanted = text.toLowerCase();
        const found: string[] = [];
        for (const { path, package: of } of modules) {
          if (of !== null || !path.toLowerCase().includes(wanted)) continue;
          found.push(path);
          if (found.length === MOST) break;
        }
        return found;
      },
    };
  }, [modules]);
}
