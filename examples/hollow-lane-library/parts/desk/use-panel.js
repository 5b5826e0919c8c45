import { useState } from '#kit';

const shared = { panel: null, show: () => {} };

export function usePanel() {
  const [panel, show] = useState(shared.panel);
  shared.show = show;
  return { panel, show: shared.show };
}
