/**
 * So many journeys go side by side, each in an installation that no other is in. On two processors one at a time takes as
 * long as two, and waits for nothing.
 */
export const SIDE_BY_SIDE = 1;

/** The installation with a week of history of whoever goes there. */
export const weekOf = (n: number | string) => `WEEK_${n}`;
