export function Slag(p: any) { return <div {...p}>Slag</div>; }
