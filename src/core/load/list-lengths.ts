/** Rows of a list whose length no code tells: an assumption, of what is reckoned and of what is made up for a rehearsal alike. */
export const ROWS = 10;

/** The same of a list within another one: those are short. */
export const INNER_ROWS = 3;
