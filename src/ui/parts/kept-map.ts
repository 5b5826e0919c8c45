/** What is kept in this browser under a key, by name; nothing where nothing is, or what is there can't be read. */
export function keptMap(key: string): Record<string, unknown> {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(key) ?? '{}');
    return typeof kept === 'object' && kept !== null ? { ...kept } : {};
  } catch {
    return {};
  }
}

/** Keeps a value beside the others of its key; null: it isn't kept any more. Without storage it lasts as long as the page. */
export function keepInMap(key: string, name: string, value: unknown): void {
  const { [name]: _, ...others } = keptMap(key);
  try {
    localStorage.setItem(key, JSON.stringify(value === null ? others : { ...others, [name]: value }));
  } catch {
    // Nothing can be kept here.
  }
}
