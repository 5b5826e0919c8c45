export const neverAsked = 1;
