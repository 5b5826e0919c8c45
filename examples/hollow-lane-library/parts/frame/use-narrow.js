export function useNarrow() {
  return typeof matchMedia === 'function' && matchMedia('(max-width: 700px)').matches;
}
