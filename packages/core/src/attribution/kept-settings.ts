/** Windows, in days, for which the number of touches inside is kept with each journey; others are counted when asked for. */
export const KEPT_WINDOWS = [30, 90, 365] as const;

/** Half-lives, in days, for which the weights of a journey are kept added up; others are added up when asked for. */
export const KEPT_HALF_LIVES = [7, 14, 30, 90] as const;
