"use client";
import { useState } from '#kit';
import { HoldSlip } from './hold-slip.jsx';

export function Copies({ of }) {
  const [asking, ask] = useState(false);
  const toggle = () => ask(!asking);
  return (
    <section>
      <p>{of.copies} copies</p>
      <button type="button" onClick={toggle}>Put it aside for me</button>
      {!asking || <HoldSlip book={of} onDone={toggle} />}
    </section>
  );
}
