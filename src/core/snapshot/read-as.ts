/** What a folder holds; `tell by content` looks. */
export const READ_AS = ['tell by content', 'sources', 'output'] as const;
export type ReadAs = (typeof READ_AS)[number];
