export function Editor(p: any) { return <div {...p}>Editor</div>; }
