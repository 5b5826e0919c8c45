'use client';
export default function Search(p: { onClose: () => void }) { return <input onBlur={p.onClose} />; }
