import { useDraggable, useDroppable } from '@dnd-kit/core';
import type { ReactNode } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { RunSummary } from '@hand-relay/contract';
import { distance, duration } from '../text/index.ts';
import { Row, Shape, Text, useSurface } from '../ui/index.ts';
import { onRun } from './dropPlaces.ts';

/** A run on the board: dragged by who may, and a place to drop orders of other runs on. */
export function RunCard({
  run,
  movable,
  here,
  onPress,
  children,
}: {
  run: RunSummary;
  movable: boolean;
  here: boolean;
  onPress: () => void;
  /** Its orders, where they are shown. */
  children?: ReactNode;
}) {
  const { t } = useTranslation();
  const { setNodeRef, attributes, listeners, isDragging } = useDraggable({ id: run.id, disabled: !movable });
  const onto = useDroppable({ id: onRun(run.id), disabled: !movable });
  const face = (
    <div
      ref={setNodeRef}
      {...(movable ? { ...attributes, ...listeners } : { role: 'button', tabIndex: 0 })}
      aria-label={t('board.run', { run: run.number, sign: run.callSign })}
      onClick={onPress}
      style={{
        opacity: isDragging ? 0.35 : 1,
        touchAction: 'manipulation',
        userSelect: 'none',
        cursor: movable ? 'grab' : 'pointer',
      }}
    >
      <RunFace run={run} here={here || onto.isOver} />
    </div>
  );
  return (
    <div ref={onto.setNodeRef}>
      {face}
      {children}
    </div>
  );
}

export function RunFace({ run, here, lifted = false }: { run: RunSummary; here: boolean; lifted?: boolean }) {
  const { t } = useTranslation();
  const surface = useSurface();
  const share = run.picks > 0 ? run.picksDone / run.picks : 0;
  return (
    <View
      style={{
        gap: 2,
        padding: here ? 7 : 8,
        borderWidth: here ? 2 : 1,
        borderColor: here ? surface.ink : surface.line,
        borderRadius: 4,
        backgroundColor: surface.raised,
        ...(lifted ? { width: 240 } : {}),
      }}
    >
      <Row gap={8} style={{ flexWrap: 'nowrap', justifyContent: 'space-between' }}>
        <Text kind="strong" lines={1}>
          {run.number} · {run.callSign}
        </Text>
        <Text kind="small" colour="quiet">
          {run.priority > 0 ? t('board.urgent', { by: run.priority }) : t(`waves.runState.${run.state}`)}
        </Text>
      </Row>
      <Text kind="small" colour="quiet">
        {[
          t('unit.orders', { count: run.orders }),
          t('unit.stops', { count: run.stops }),
          distance(run.metres),
          duration(run.secondsLeft),
        ].join(' · ')}
      </Text>
      <Row gap={6} style={{ flexWrap: 'nowrap' }}>
        <Shape kind={run.proven ? 'done' : 'quiet'} size={12} />
        <Text kind="small" colour="quiet" lines={1}>
          {[
            run.proven ? t('board.shortest') : t('board.atLeast', { metres: distance(run.lowerBound) }),
            run.area && t('board.area', { area: run.area }),
          ]
            .filter(Boolean)
            .join(' · ')}
        </Text>
      </Row>
      {share > 0 && (
        <View style={{ height: 5, backgroundColor: surface.sunk }}>
          <View style={{ height: 5, width: `${share * 100}%`, backgroundColor: surface.done }} />
        </View>
      )}
    </View>
  );
}
