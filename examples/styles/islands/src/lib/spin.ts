export const spin = (n: Element | null) => n?.classList.add('spin');
