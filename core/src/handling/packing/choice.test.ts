import { isPacked, type PackingChoice } from './index.ts';

it.each<[PackingChoice, PackingChoice, PackingChoice, boolean, boolean]>([
  ['usual', 'usual', 'usual', false, true],
  ['usual', 'usual', 'usual', true, false],
  ['usual', 'usual', 'as-picked', false, false],
  ['usual', 'pack', 'as-picked', false, true],
  ['as-picked', 'pack', 'usual', false, false],
  ['pack', 'as-picked', 'as-picked', true, true],
  ['usual', 'usual', 'pack', true, true],
])('an order that says %s, of a customer with %s and a channel with %s, own boxes %s: packed %s', (...row) => {
  const [order, customer, channel, ownBoxes, packed] = row;
  expect(isPacked({ order, customer, channel }, ownBoxes)).toBe(packed);
});
