export const tone = 'E flat';
