export function Ledger(p: any) { return <div {...p}>Ledger</div>; }
