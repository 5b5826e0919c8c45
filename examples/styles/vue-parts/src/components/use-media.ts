export function useMediaQuery(q: string) { return { value: matchMedia(q).matches } }
