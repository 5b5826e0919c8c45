export function AlloyTable(p: any) { return <div {...p}>AlloyTable</div>; }
