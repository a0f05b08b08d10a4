/** The script in which something is asked between two runs; it takes no part in the form. */
export const ASKING = '@asking';
