/** How many lines a list reads at once. */
export const PAGE = 100;
