export function Dialog(p: any) { return <div>{p.children}</div>; }
export function DialogTrigger(p: any) { return <button>{p.children}</button>; }
export function DialogContent(p: any) { return <div>{p.children}</div>; }
