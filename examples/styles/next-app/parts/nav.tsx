'use client';

import { useState } from 'react';

export function Nav() {
  const [open, setOpen] = useState(false);
  return <button onClick={() => setOpen(!open)}>Menu</button>;
}
