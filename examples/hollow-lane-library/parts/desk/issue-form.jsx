"use client";
export const IssueForm = () => <form><input aria-label="Card number" /><input aria-label="Book number" /></form>;
