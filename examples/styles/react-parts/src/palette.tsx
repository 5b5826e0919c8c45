export function CommandPalette(p: any) { return <div {...p}>CommandPalette</div>; }
