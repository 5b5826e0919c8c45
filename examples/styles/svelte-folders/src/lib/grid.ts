export const grid = (name: string) => name.length;
