import 'server-only';
export async function getTide() { return { high: true }; }
