export function Toast(p: any) { return <div {...p}>Toast</div>; }
