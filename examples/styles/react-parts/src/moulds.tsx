export function Moulds(p: any) { return <div {...p}>Moulds</div>; }
