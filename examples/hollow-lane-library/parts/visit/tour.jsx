"use client";
export const Tour = ({ onEnd }) => <dialog open><p>Mind the ladder.</p><button type="button" onClick={onEnd}>Enough</button></dialog>;
