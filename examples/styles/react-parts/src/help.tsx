export function Help(p: any) { return <div {...p}>Help</div>; }
