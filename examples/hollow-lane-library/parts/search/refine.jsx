"use client";
export const Refine = ({ onDone }) => <fieldset><label><input type="checkbox" /> On the shelf now</label><button type="button" onClick={onDone}>Done</button></fieldset>;
