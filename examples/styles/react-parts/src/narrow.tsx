export function NarrowMenu(p: any) { return <div {...p}>NarrowMenu</div>; }
