export async function getJson(path: string) { const r = await fetch(path); return r.json(); }
