"use client";
import { useState } from '#kit';
import { CardFlap } from './card-flap.jsx';

export function ReaderCard({ reader }) {
  const [unfolded, unfold] = useState(false);
  return (
    <aside>
      <button type="button" title="Unfold the card" onClick={() => unfold(true)} />
      {unfolded && <CardFlap reader={reader} />}
    </aside>
  );
}
