import {
  KeyboardSensor,
  MeasuringStrategy,
  MouseSensor,
  TouchSensor,
  useSensor,
  useSensors,
  type Announcements,
  type UniqueIdentifier,
} from '@dnd-kit/core';
import { useTranslation } from 'react-i18next';
import { betweenPlaces } from './dropPlaces.ts';

/** Work goes on while something is carried, and rows move: where they are is measured again and again. */
const MEASURED = { droppable: { strategy: MeasuringStrategy.WhileDragging, frequency: 150 } };

/**
 * How runs are dragged: by mouse, by a finger that rests a moment, or by keys; what is carried, and over what, is said.
 *
 * @param nameOf the name of what is carried or of a place
 */
export function useRunDrag(nameOf: (key: UniqueIdentifier) => string) {
  const { t } = useTranslation();
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 200, tolerance: 8 } }),
    useSensor(KeyboardSensor, { coordinateGetter: betweenPlaces }),
  );
  const announcements: Announcements = {
    onDragStart: ({ active }) => t('board.lifted', { what: nameOf(active.id) }),
    onDragOver: ({ active, over }) =>
      over ? t('board.over', { what: nameOf(active.id), place: nameOf(over.id) }) : undefined,
    onDragEnd: ({ active, over }) =>
      over ? t('board.putDown', { what: nameOf(active.id), place: nameOf(over.id) }) : t('board.stays'),
    onDragCancel: () => t('board.stays'),
  };
  return {
    sensors,
    measuring: MEASURED,
    accessibility: { screenReaderInstructions: { draggable: t('board.how') }, announcements },
  };
}
