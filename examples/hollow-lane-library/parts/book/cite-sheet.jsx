"use client";
export const CiteSheet = ({ book, onClose }) => <dialog open><pre>{book.title}. Hollow Lane.</pre><button type="button" onClick={onClose}>Close</button></dialog>;
