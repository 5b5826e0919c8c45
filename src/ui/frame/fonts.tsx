'use client';

import { useEffect } from 'react';
import { FONTS_KEY } from './own-fonts.ts';

/** Has the page’s own fonts fetched once it is there and has nothing else to do: until then they would hold up what the page needs to answer. */
export function Fonts() {
  useEffect(() => {
    const take = () => {
      document.documentElement.dataset.fonts = 'own';
      try {
        localStorage.setItem(FONTS_KEY, 'fetched');
      } catch {
        // Without storage each page begins with those of the system.
      }
    };
    const whenIdle = () => ('requestIdleCallback' in window ? requestIdleCallback(take) : setTimeout(take, 200));
    if (document.readyState === 'complete') whenIdle();
    else addEventListener('load', whenIdle, { once: true });
  }, []);
  return null;
}
