"use client";
export const StampLog = () => <ol aria-label="Stamps of the day" />;
