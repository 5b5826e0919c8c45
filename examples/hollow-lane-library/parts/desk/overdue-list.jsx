"use client";
export const OverdueList = () => <ol aria-label="Overdue" />;
