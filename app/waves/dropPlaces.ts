import type { CollisionDetection, KeyboardCoordinateGetter, UniqueIdentifier } from '@dnd-kit/core';
import { pointerWithin, rectIntersection } from '@dnd-kit/core';

const RUN = 'onto ';
const ORDER = 'order ';

/** A run as a place that orders are dropped on. */
export const onRun = (run: string) => RUN + run;
/** An order as something that is dragged. */
export const orderHeld = (order: string) => ORDER + order;
/** The run that a drop place means; null where it is none. */
export const runUnder = (id: UniqueIdentifier | undefined) =>
  typeof id === 'string' && id.startsWith(RUN) ? id.slice(RUN.length) : null;
/** The order that is dragged; null where it is a run. */
export const orderOf = (id: UniqueIdentifier | undefined | null) =>
  typeof id === 'string' && id.startsWith(ORDER) ? id.slice(ORDER.length) : null;

/** A run is dropped on who shall pick it, an order on another run or on who shall pick it as a run of its own. */
const takes = (place: UniqueIdentifier, held: UniqueIdentifier) => orderOf(held) !== null || runUnder(place) === null;

/** Places as they are read: bay by bay, each before the runs that lie in it. The page has them in this order. */
function inReadingOrder<P extends { node: { current: HTMLElement | null } }>(places: readonly P[]): P[] {
  const shown = places.flatMap((place) => (place.node.current ? [{ place, node: place.node.current }] : []));
  return shown
    .sort((a, b) => (a.node.compareDocumentPosition(b.node) & Node.DOCUMENT_POSITION_FOLLOWING ? -1 : 1))
    .map(({ place }) => place);
}

/** Arrow keys carry what is held from place to place. */
export const betweenPlaces: KeyboardCoordinateGetter = (event, { active, context, currentCoordinates }) => {
  const step =
    event.code === 'ArrowRight' || event.code === 'ArrowDown'
      ? 1
      : event.code === 'ArrowLeft' || event.code === 'ArrowUp'
        ? -1
        : 0;
  if (step === 0) return undefined;
  event.preventDefault();
  const open = [...context.droppableContainers.values()].flatMap((p) =>
    p && !p.disabled && takes(p.id, active) ? [p] : [],
  );
  const places = inReadingOrder(open);
  const at = places.findIndex((p) => p.id === context.over?.id);
  const next = places[Math.min(Math.max(at + step, 0), places.length - 1)];
  // Where it is now, and not where it was when it was measured last.
  const rect = next?.node.current?.getBoundingClientRect();
  // A bay is entered below its title, a run's card in its middle.
  return next && rect ? { x: rect.left + 8, y: rect.top + (runUnder(next.id) === null ? 40 : 12) } : currentCoordinates;
};

/** The place under the pointer, a run's card before the bay it lies in; carried by keys, the one it lies over. */
export const underPointer: CollisionDetection = (args) => {
  const held = args.active.id;
  const own = { ...args, droppableContainers: args.droppableContainers.filter((p) => takes(p.id, held)) };
  const hits = pointerWithin(own);
  const found = hits.length > 0 ? hits : rectIntersection(own);
  const runs = found.filter((hit) => runUnder(hit.id) !== null);
  return runs.length > 0 ? runs : found;
};
