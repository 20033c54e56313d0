/** Whether goods go over a bench: as is usual, always, or never. */
export const packingChoices = ['usual', 'pack', 'as-picked'] as const;
export type PackingChoice = (typeof packingChoices)[number];

/**
 * Whether an order is packed, at a site that packs: what the order itself says holds before its customer, the customer
 * before the channel. Where none says anything all are, but orders whose goods ship in boxes of their own.
 *
 * @param ownBoxes whether every item of the order ships in its own box
 */
export function isPacked(
  { order, customer, channel }: Record<'order' | 'customer' | 'channel', PackingChoice>,
  ownBoxes: boolean,
): boolean {
  const said = [order, customer, channel].find((choice) => choice !== 'usual');
  return said === undefined ? !ownBoxes : said === 'pack';
}
