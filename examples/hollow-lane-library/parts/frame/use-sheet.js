import { useState } from '#kit';

export function useSheet() {
  const [on, set] = useState(false);
  return { on, begin: () => set(true), end: () => set(false) };
}
