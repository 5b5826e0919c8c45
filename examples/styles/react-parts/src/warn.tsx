export function Warning(p: any) { return <div {...p}>Warning</div>; }
