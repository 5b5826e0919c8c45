const PREFIX = 'saltmarsh:';

export function read(key: string): string | null {
  try {
    return localStorage.getItem(PREFIX + key);
  } catch {
    return null;
  }
}
export function write(key: string, value: string): void {
  try {
    localStorage.setItem(PREFIX + key, value);
  } catch {
    // Private windows may refuse; the setting then lasts as long as the page.
  }
}
