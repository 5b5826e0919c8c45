export const heavy = 'a long text that nobody needs';
