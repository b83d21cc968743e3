/** How high a row of the grid is, in pixels. */
export const ROW_HEIGHT = 33;
