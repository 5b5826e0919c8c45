"use client";
export const SketchPlan = () => <svg viewBox="0 0 90 40"><path d="M0 0h90v40H0z" /></svg>;
