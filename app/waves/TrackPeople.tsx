import { DndContext, DragOverlay } from '@dnd-kit/core';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { createPortal } from 'react-dom';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { Crew } from '@hand-relay/contract';
import { troubleOf, useMay, useMe, words } from '../state/index.ts';
import { Failed, Text } from '../ui/index.ts';
import { baysOf } from './bays.ts';
import { underPointer } from './dropPlaces.ts';
import { PeopleRows } from './PeopleRows.tsx';
import { BlockFace } from './RunBlock.tsx';
import { waits } from './runOrders.ts';
import type { Axis } from './track.ts';
import { useGiveRun } from './useGiveRun.ts';
import { useRunDrag } from './useRunDrag.ts';

const LIFTED = 160;

/** People below the departures: what each has in hand and in the queue; a run is dragged to somebody else. */
export function TrackPeople({ crew, axis, now, wide }: { crew: Crew; axis: Axis; now: number; wide: boolean }) {
  const { t } = useTranslation();
  const me = useMe();
  const router = useRouter();
  const may = useMay('runs.arrange');
  const { give, error } = useGiveRun();
  const [held, setHeld] = useState<string | null>(null);
  const bays = baysOf(crew, crew.runs, {
    anybody: t('board.anybody'),
    queue: (team) => t('board.queue', { team }),
    now,
    timeZone: me.site.timeZone,
  }).filter((bay) => bay.person !== null || crew.runs.some((r) => !r.pickerId && !r.assignedId && r.team === bay.team));
  const lifted = crew.runs.find((r) => r.id === held) ?? null;
  const drag = useRunDrag((key) => {
    const run = crew.runs.find((r) => r.id === key);
    return run
      ? t('board.run', { run: run.number, sign: run.callSign })
      : (bays.find((b) => b.key === key)?.title ?? '');
  });
  if (bays.length === 0) return null;
  return (
    <DndContext
      {...drag}
      collisionDetection={underPointer}
      onDragStart={({ active }) => setHeld(String(active.id))}
      onDragCancel={() => setHeld(null)}
      onDragEnd={({ active, over }) => {
        setHeld(null);
        const run = crew.runs.find((r) => r.id === active.id);
        const bay = bays.find((b) => b.key === over?.id);
        if (run && bay) void give(run, bay);
      }}
    >
      <View role="group" aria-label={t('track.people')}>
        <Text kind="small" colour="quiet" style={{ paddingTop: 8 }}>
          {t(may ? 'track.peopleDrag' : 'track.people')}
        </Text>
        {error && <Failed text={words(troubleOf(error))} />}
        <PeopleRows
          bays={bays}
          runs={crew.runs}
          pace={crew.pace}
          axis={axis}
          now={now}
          wide={wide}
          figures
          movable={(run) => may && waits(run)}
          held={lifted}
          onPress={(run) => router.navigate(waits(run) ? `/waves/${run.wave}` : `/floor/runs/${run.id}`)}
        />
      </View>
      {createPortal(
        <DragOverlay>{lifted && <BlockFace run={lifted} width={LIFTED} here />}</DragOverlay>,
        document.body,
      )}
    </DndContext>
  );
}
