export const lamp = 'green';
