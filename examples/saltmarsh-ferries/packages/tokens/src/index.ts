export const space = { s: 4, m: 8, l: 16, xl: 32 } as const;
export const ink = { sea: '#16404d', sand: '#f3ead8', foam: '#ffffff' } as const;
