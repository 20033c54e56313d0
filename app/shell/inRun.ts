/** Whether a screen is one of the hand, inside a run: there the card has the whole phone, without a bar of the product. */
export const inRun = (path: string): boolean => /^\/floor\/(runs|back)\//.test(path);
