"use client";
export const DamageReport = ({ onBack }) => <form><textarea aria-label="What is torn" /><button type="button" onClick={onBack}>Back</button></form>;
