import { useDraggable, useDroppable } from '@dnd-kit/core';
import { useTranslation } from 'react-i18next';
import type { CrewRun } from '@hand-relay/contract';
import { Text, useSurface } from '../ui/index.ts';
import { onRun } from './dropPlaces.ts';

/** Height of a run on a lane; a finger finds it. */
export const BLOCK = 36;
/** Pixels from which on a run's call sign has room beside its number. */
const NAMED = 104;

/** A run as long as it takes. Who may drags it to somebody else; orders of other runs are dropped on it. */
export function RunBlock({
  run,
  width,
  movable,
  takesOrders = false,
  foreign = false,
  here = false,
  onPress,
}: {
  run: CrewRun;
  width: number;
  movable: boolean;
  takesOrders?: boolean;
  /** Of another wave: it is only in the way. */
  foreign?: boolean;
  here?: boolean;
  onPress: () => void;
}) {
  const { t } = useTranslation();
  const { setNodeRef, attributes, listeners, isDragging } = useDraggable({ id: run.id, disabled: !movable });
  const onto = useDroppable({ id: onRun(run.id), disabled: !movable || !takesOrders });
  return (
    <div ref={onto.setNodeRef}>
      <div
        ref={setNodeRef}
        {...(movable ? { ...attributes, ...listeners } : { role: 'button', tabIndex: 0 })}
        aria-label={t('board.run', { run: run.number, sign: run.callSign })}
        title={`${run.number} · ${run.callSign}`}
        onClick={onPress}
        onKeyDown={(event) => {
          if (!movable && event.key === 'Enter') onPress();
          else listeners?.['onKeyDown']?.(event);
        }}
        style={{
          opacity: isDragging ? 0.35 : 1,
          touchAction: 'manipulation',
          userSelect: 'none',
          cursor: movable ? 'grab' : 'pointer',
        }}
      >
        <BlockFace run={run} width={width} here={here || onto.isOver} foreign={foreign} />
      </div>
    </div>
  );
}

export function BlockFace({
  run,
  width,
  here = false,
  foreign = false,
}: {
  run: CrewRun;
  width: number;
  here?: boolean;
  foreign?: boolean;
}) {
  const surface = useSurface();
  const share = run.picks > 0 ? run.picksDone / run.picks : 0;
  const hatch = `repeating-linear-gradient(45deg, ${surface.line} 0 2px, ${surface.sunk} 2px 7px)`;
  return (
    <div
      style={{
        boxSizing: 'border-box',
        position: 'relative',
        width,
        height: BLOCK,
        overflow: 'hidden',
        border: `${here ? 2 : 1}px ${run.state === 'planned' ? 'dashed' : 'solid'} ${here || !foreign ? surface.ink : surface.quiet}`,
        borderRadius: 4,
        background: foreign ? hatch : surface.raised,
        display: 'flex',
        alignItems: 'center',
        paddingLeft: 5,
        paddingRight: 2,
      }}
    >
      {share > 0 && !foreign && (
        <div
          style={{
            position: 'absolute',
            left: 0,
            bottom: 0,
            height: 5,
            width: `${share * 100}%`,
            background: surface.done,
          }}
        />
      )}
      <Text kind="small" lines={1} colour={foreign ? 'quiet' : 'ink'}>
        {width >= NAMED ? `${run.number} · ${run.callSign}` : run.number}
      </Text>
    </div>
  );
}
