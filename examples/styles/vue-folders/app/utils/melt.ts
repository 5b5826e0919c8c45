export const melt = (n: number) => n + 1;
