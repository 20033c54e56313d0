import type { LineDraft, OrderDraft } from '@hand-relay/core/reading/intake';
import type { Random } from '@hand-relay/core/random';

/** What the stand-in knows of the house it sends to. */
export interface HostWorld {
  items: string[];
  customers: (Omit<OrderDraft['shipTo'], 'name'> & { number: string; name: string })[];
  /** Days on which orders may be due, the soonest first. */
  days: string[];
}

const CHANNELS = ['web', 'account', 'field'];

/** A new order as a host system would send it. */
export function newOrder(random: Random, world: HostWorld, number: string): OrderDraft {
  const { number: customer, ...address } = random.pick(world.customers);
  const first = random.int(0, world.items.length - 1);
  const lines = Array.from({ length: random.int(1, Math.min(4, world.items.length)) }, (_, i) => ({
    line: i + 1,
    sku: world.items[(first + i * 7) % world.items.length]!,
    quantity: random.int(1, 8),
    pack: 'unit' as const,
    note: '',
  }));
  return {
    number,
    kind: 'order',
    toSite: '',
    channel: random.pick(CHANNELS),
    customer,
    reference: `WEB ${random.int(10_000, 99_999)}`,
    due: random.pick(world.days),
    priority: random.pick([1, 3, 5, 5, 5, 7]),
    shipComplete: random.int(0, 5) === 0,
    shipTo: address,
    note: random.int(0, 6) === 0 ? 'Please add no price list' : '',
    link: `https://host.example/orders/${number}`,
    tags: [],
    lines: [...new Map(lines.map((l) => [l.sku, l])).values()],
  };
}

/** An order as its customer changed it: more of a line, less, one line gone, or one more. */
export function changedOrder(random: Random, world: HostWorld, order: OrderDraft): OrderDraft {
  const at = random.int(0, order.lines.length - 1);
  const line = order.lines[at]!;
  const kind = random.int(0, order.lines.length > 1 ? 3 : 2);
  const last = Math.max(...order.lines.map((l) => l.line));
  const others = world.items.filter((sku) => !order.lines.some((l) => l.sku === sku));
  const more: LineDraft[] =
    kind === 2 && others.length > 0
      ? [{ line: last + 1, sku: random.pick(others), quantity: random.int(1, 4), pack: 'unit', note: '' }]
      : [];
  const quantity = kind === 0 ? line.quantity + random.int(1, 5) : Math.max(1, Math.floor(line.quantity / 2));
  const lines =
    kind === 3
      ? order.lines.filter((l) => l !== line)
      : kind === 2
        ? order.lines
        : order.lines.map((l) => (l === line ? { ...l, quantity } : l));
  return { ...order, lines: [...lines, ...more] };
}
