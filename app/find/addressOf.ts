import type { FoundKind, SearchHit, WorkPlace } from '@hand-relay/contract';

/**
 * The address of what was found, in the first place that a person may use for it.
 *
 * @returns null where none of their places shows it
 */
export function addressOfHit(
  kind: FoundKind,
  { id, within, title }: Pick<SearchHit, 'id' | 'within' | 'title'>,
  places: readonly WorkPlace[],
): string | null {
  const may = (place: WorkPlace) => places.includes(place);
  const order = (of: string) => (may('desk') ? `/desk/orders/${of}` : may('bench') ? `/bench/orders/${of}` : null);
  const wave = (of: string | null) => (of !== null && may('desk') ? `/waves/${of}` : null);
  switch (kind) {
    case 'order':
      return order(id);
    case 'shipment':
    case 'carton':
      return may('dock') ? `/dock/${id}` : within && order(within);
    case 'wave':
      return wave(id);
    case 'run':
      return wave(within) ?? (may('floor') ? `/floor/runs/${id}` : null);
    case 'cart':
      return wave(within) ?? (may('setup') ? `/setup/carts?find=${encodeURIComponent(title)}` : null);
    case 'load':
      return may('desk') ? `/desk/loads/${id}` : null;
    case 'item':
      return may('desk') ? `/desk/items/${id}` : null;
    case 'lot':
    case 'serial':
      return may('desk') ? `/desk/trace?item=${id}&${kind}=${encodeURIComponent(title)}` : null;
    case 'bin':
    case 'place':
      return may('desk') ? `/desk/trace?place=${id}` : null;
    case 'customer':
      return may('desk') ? `/desk?show=open&find=${encodeURIComponent(title)}` : null;
    case 'person':
      return may('setup') ? `/setup/people?find=${encodeURIComponent(title)}` : null;
  }
}
