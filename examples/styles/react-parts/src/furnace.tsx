export function FurnaceControl(p: any) { return <div {...p}>FurnaceControl</div>; }
