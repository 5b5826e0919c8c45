export function Casts(p: any) { return <div {...p}>Casts</div>; }
