export function Chart(p: any) { return <div {...p}>Chart</div>; }
