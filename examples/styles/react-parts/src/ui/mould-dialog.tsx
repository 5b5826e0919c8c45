export function MouldDialog({ open, onClose }: { open: boolean; onClose: () => void }) { if (!open) return null; return <dialog open><button onClick={onClose}>Close</button></dialog>; }
