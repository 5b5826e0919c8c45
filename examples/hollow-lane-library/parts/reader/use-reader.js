export function useReader() {
  const kept = globalThis.localStorage?.getItem('reader');
  return kept ? JSON.parse(kept) : null;
}
