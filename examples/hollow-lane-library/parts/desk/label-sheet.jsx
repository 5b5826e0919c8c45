"use client";
export const LabelSheet = ({ onBack }) => <dialog open><svg /><button type="button" onClick={onBack}>Back</button></dialog>;
