/** How dark a rack is drawn for what is still to be picked there, of the most that any has: from 0 to 1. */
export const heatOf = (open: number, most: number): number => (open === 0 ? 0 : 0.15 + 0.75 * Math.sqrt(open / most));
