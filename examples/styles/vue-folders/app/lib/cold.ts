export const cold = (n: number) => -n;
