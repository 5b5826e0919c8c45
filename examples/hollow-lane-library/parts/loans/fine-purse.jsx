"use client";
export const FinePurse = ({ fines }) => <p>{fines.due} pence are due. Please pay at the desk.</p>;
