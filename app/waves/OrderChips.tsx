import { useDraggable } from '@dnd-kit/core';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { Text, useSurface } from '../ui/index.ts';
import { orderHeld } from './dropPlaces.ts';
import type { RunOrder } from './runOrders.ts';

/** Orders of a run that nobody has begun, each to be dragged to another run or to a person. */
export function OrderChips({ orders }: { orders: RunOrder[] }) {
  const { t } = useTranslation();
  return (
    <View
      role="group"
      aria-label={t('board.orders')}
      style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 4, paddingTop: 4 }}
    >
      {orders.map((order) => (
        <Draggable key={order.id} order={order} />
      ))}
    </View>
  );
}

function Draggable({ order }: { order: RunOrder }) {
  const { t } = useTranslation();
  const { setNodeRef, attributes, listeners, isDragging } = useDraggable({ id: orderHeld(order.id) });
  return (
    <div
      ref={setNodeRef}
      {...attributes}
      {...listeners}
      aria-label={t('board.order', { order: order.number })}
      style={{
        opacity: isDragging ? 0.35 : 1,
        touchAction: 'manipulation',
        userSelect: 'none',
        cursor: 'grab',
      }}
    >
      <OrderChip order={order} />
    </div>
  );
}

export function OrderChip({ order, lifted = false }: { order: RunOrder; lifted?: boolean }) {
  const surface = useSurface();
  return (
    <View
      style={{
        minHeight: 30,
        justifyContent: 'center',
        paddingHorizontal: 8,
        borderWidth: lifted ? 2 : 1,
        borderColor: lifted ? surface.ink : surface.line,
        borderRadius: 4,
        backgroundColor: surface.raised,
        alignSelf: 'flex-start',
      }}
    >
      <Text kind="small">{`${order.position} · ${order.number}`}</Text>
    </View>
  );
}
