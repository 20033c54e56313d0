import type { CustomerChoice, DraftOfOrder, ItemChoice } from '@hand-relay/contract';
import type { Body } from '../state/index.ts';

type Sent = Body<'enterOrder'>;
export type DraftSent = Sent['draft'];

/** A line as it is typed. */
export interface FormLine {
  line: number;
  /** What stands in the field: a part of a name until an item is chosen. */
  text: string;
  item: ItemChoice | null;
  quantity: string;
  pack: 'unit' | 'inner' | 'outer';
  note: string;
}

/** An order as it is typed. */
export interface EnterForm {
  number: string;
  kind: DraftSent['kind'] & string;
  toSite: string;
  channel: string;
  /** Number of the customer, empty until one is chosen. */
  customer: string;
  customerText: string;
  reference: string;
  due: string;
  /** Name of the departure; empty for the usual one. */
  departure: string;
  priority: number;
  shipComplete: boolean;
  shipTo: DraftSent['shipTo'];
  note: string;
  link: string;
  tags: string;
  lines: FormLine[];
}

const emptyLine = (line: number): FormLine => ({ line, text: '', item: null, quantity: '1', pack: 'unit', note: '' });
const nowhere = { name: '', street: '', postcode: '', city: '', country: '' };

/** A new order, due on a day, by a channel. */
export const newForm = (due: string, channel: string): EnterForm => ({
  number: '',
  kind: 'order',
  toSite: '',
  channel,
  customer: '',
  customerText: '',
  reference: '',
  due,
  departure: '',
  priority: 5,
  shipComplete: false,
  shipTo: nowhere,
  note: '',
  link: '',
  tags: '',
  lines: [emptyLine(1)],
});

/** An order that is there, to be changed; as a copy it gets a number, a reference and a day of its own. */
export function formOf({ draft, departure, items }: DraftOfOrder, copyDue: string | null = null): EnterForm {
  const itemOf = new Map(items.map((i) => [i.sku, i]));
  return {
    ...draft,
    customerText: draft.customer,
    departure: copyDue === null ? (departure ?? '') : '',
    tags: draft.tags.join(', '),
    lines: draft.lines.map((l) => {
      const item = itemOf.get(l.sku) ?? null;
      return { ...l, item, text: item ? nameOf(item) : l.sku, quantity: String(l.quantity) };
    }),
    ...(copyDue === null ? {} : { number: '', reference: '', link: '', due: copyDue }),
  };
}

export const nameOf = (item: ItemChoice): string => `${item.sku} · ${item.name}`;

/** A line more, numbered behind the last. */
export const withLine = (form: EnterForm): EnterForm => ({
  ...form,
  lines: [...form.lines, emptyLine(Math.max(0, ...form.lines.map((l) => l.line)) + 1)],
});

/** The customer is chosen: the goods go to their address, unless another one was typed. */
export function withCustomer(form: EnterForm, customer: CustomerChoice, before: CustomerChoice | null): EnterForm {
  const addressOf = ({ name, street, postcode, city, country }: DraftSent['shipTo']) => ({
    name,
    street,
    postcode,
    city,
    country,
  });
  const own = (a: DraftSent['shipTo'], b: DraftSent['shipTo']) =>
    JSON.stringify(addressOf(a)) === JSON.stringify(addressOf(b));
  const typed = !own(form.shipTo, nowhere) && !(before && own(form.shipTo, before));
  return {
    ...form,
    customer: customer.number,
    customerText: `${customer.number} · ${customer.name}`,
    ...(typed ? {} : { shipTo: addressOf(customer) }),
  };
}

/** Units of a line in its packs; null where no item or no number is there. */
export function unitsOf({ item, quantity, pack }: FormLine): number | null {
  if (!item || !/^\d+$/.test(quantity.trim())) return null;
  return Number(quantity) * (item.packs[pack] ?? 1);
}

export type Fault = 'needed' | 'whole' | 'badDay' | 'badCountry' | 'badLink' | 'oneLine';

/** What is sent of a form, and what is missing or wrong in it, by the path that the server would name too. */
export function sentOf(form: EnterForm): { draft: DraftSent; faults: Map<string, Fault> } {
  const faults = new Map<string, Fault>();
  const must = (path: string, ok: boolean, fault: Fault) => ok || faults.set(`draft.${path}`, fault);
  must('customer', form.customer !== '', 'needed');
  must('due', /^\d{4}-\d{2}-\d{2}$/.test(form.due), 'badDay');
  must('shipTo.name', form.shipTo.name.trim() !== '', 'needed');
  must('shipTo.country', /^[A-Z]{2}$/.test(form.shipTo.country.trim()), 'badCountry');
  must('link', form.link.trim() === '' || /^https?:\/\/\S+$/i.test(form.link.trim()), 'badLink');
  must('toSite', form.kind !== 'transfer' || form.toSite.trim() !== '', 'needed');
  // An empty line at the end is one that was not used.
  const lines = form.lines.filter((l) => l.item !== null || l.text.trim() !== '');
  must('lines', lines.length > 0, 'oneLine');
  lines.forEach((l, i) => {
    must(`lines.${i}.sku`, l.item !== null, 'needed');
    must(`lines.${i}.quantity`, /^[1-9]\d{0,6}$/.test(l.quantity.trim()), 'whole');
  });
  const { customerText: _, departure: __, ...head } = form;
  return {
    faults,
    draft: {
      ...head,
      toSite: form.kind === 'transfer' ? form.toSite.trim() : '',
      shipTo: { ...form.shipTo, country: form.shipTo.country.trim() },
      tags: form.tags
        .split(/[,;|]/)
        .map((tag) => tag.trim())
        .filter(Boolean),
      lines: lines.map(({ line, item, quantity, pack, note }) => ({
        line,
        sku: item?.sku ?? '',
        quantity: Number(quantity),
        pack,
        note,
      })),
    },
  };
}
