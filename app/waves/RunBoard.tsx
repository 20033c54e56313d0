import {
  DndContext,
  DragOverlay,
  KeyboardSensor,
  MouseSensor,
  pointerWithin,
  rectIntersection,
  TouchSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type CollisionDetection,
  type DragEndEvent,
  type KeyboardCoordinateGetter,
} from '@dnd-kit/core';
import { useState } from 'react';
import { createPortal } from 'react-dom';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { Crew, RunSummary } from '@hand-relay/contract';
import { arrange, tell, troubleOf, useMay, useSend, words } from '../state/index.ts';
import { distance, duration } from '../text/index.ts';
import { Failed, Key, Row, Shape, Sheet, Txt, useShortcuts, useSurface } from '../ui/index.ts';

/** Where a run can lie: with a person, in a team's queue, or with whoever asks next. */
interface Bay {
  key: string;
  title: string;
  person: string | null;
  team: string;
}

const bayOf = (run: RunSummary): string =>
  run.pickerId ? `person ${run.pickerId}` : run.assignedId ? `person ${run.assignedId}` : `team ${run.team}`;
const waits = (run: RunSummary) => run.state === 'planned' || run.state === 'waiting';

function baysOf(crew: Crew, runs: RunSummary[], anybody: string, queue: (team: string) => string): Bay[] {
  const teams = [...new Set(['', ...crew.teams, ...runs.map((r) => r.team)])];
  const busy = new Set(runs.map(bayOf));
  return [
    ...teams.map((team) => ({ key: `team ${team}`, title: team === '' ? anybody : queue(team), person: null, team })),
    ...crew.people
      .filter((p) => p.here || busy.has(`person ${p.id}`))
      .map((p) => ({ key: `person ${p.id}`, title: p.name, person: p.id, team: p.team })),
  ];
}

/** Arrow keys carry a run from bay to bay. */
const betweenBays: KeyboardCoordinateGetter = (event, { context, currentCoordinates }) => {
  const step =
    event.code === 'ArrowRight' || event.code === 'ArrowDown'
      ? 1
      : event.code === 'ArrowLeft' || event.code === 'ArrowUp'
        ? -1
        : 0;
  if (step === 0) return undefined;
  event.preventDefault();
  const bays = [...context.droppableContainers.values()];
  const at = bays.findIndex((b) => b?.id === context.over?.id);
  const next = bays[Math.min(Math.max(at + step, 0), bays.length - 1)];
  const rect = next && context.droppableRects.get(next.id);
  return rect ? { x: rect.left + 8, y: rect.top + 40 } : currentCoordinates;
};

/** The bay under the pointer; carried by keys, the one it lies over. */
const underPointer: CollisionDetection = (args) => {
  const hits = pointerWithin(args);
  return hits.length > 0 ? hits : rectIntersection(args);
};

/** Runs of a wave by who picks them: dragged from bay to bay, or carried by keys. */
export function RunBoard({
  runs,
  current,
  onCurrent,
}: {
  runs: RunSummary[];
  current: string | undefined;
  onCurrent: (run: string) => void;
}) {
  const { t } = useTranslation();
  const send = useSend();
  const may = useMay('runs.arrange');
  const { data: crew } = arrange.useCrewQuery();
  const [assign, { error }] = arrange.useAssignRunsMutation();
  const [held, setHeld] = useState<string | null>(null);
  const [giving, setGiving] = useState(false);
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 200, tolerance: 8 } }),
    useSensor(KeyboardSensor, { coordinateGetter: betweenBays }),
  );
  const bays = crew ? baysOf(crew, runs, t('board.anybody'), (team) => t('board.queue', { team })) : [];
  const give = async (run: RunSummary, bay: Bay) => {
    if (bayOf(run) === bay.key) return;
    const before = { person: run.assignedId, team: run.team };
    const done = await assign({
      runs: [run.id],
      person: bay.person,
      ...(bay.person === null ? { team: bay.team } : {}),
    });
    if (!done.data) return;
    send(
      tell({
        kind: 'done',
        text: t('board.given', { run: run.number, to: bay.title }),
        undo: { name: 'assignRuns', body: { runs: [run.id], ...before } },
      }),
    );
  };
  const dropped = ({ active, over }: DragEndEvent) => {
    setHeld(null);
    const run = runs.find((r) => r.id === active.id);
    const bay = bays.find((b) => b.key === over?.id);
    if (run && bay) void give(run, bay);
  };
  const order = bays.flatMap((b) => runs.filter((r) => bayOf(r) === b.key));
  const at = order.findIndex((r) => r.id === current);
  const chosen = order[at];
  const urge = (by: number) =>
    chosen &&
    waits(chosen) &&
    void assign({ runs: [chosen.id], priority: Math.max(-9, Math.min(9, chosen.priority + by)) });
  useShortcuts(
    {
      j: () => order.length > 0 && onCurrent(order[Math.min(at + 1, order.length - 1)]!.id),
      k: () => order.length > 0 && onCurrent(order[Math.max(at - 1, 0)]!.id),
      g: () => may && chosen && waits(chosen) && setGiving(true),
      '+': () => may && urge(1),
      '-': () => may && urge(-1),
    },
    held === null,
  );
  const lifted = runs.find((r) => r.id === held);
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={underPointer}
      onDragStart={({ active }) => setHeld(String(active.id))}
      onDragEnd={dropped}
      onDragCancel={() => setHeld(null)}
      accessibility={{ screenReaderInstructions: { draggable: t('board.how') } }}
    >
      <View style={{ gap: 10, padding: 12 }}>
        {may && (
          <Txt kind="small" colour="quiet">
            {t('board.how')}
          </Txt>
        )}
        {error && <Failed text={words(troubleOf(error))} />}
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10 }}>
          {bays.map((bay) => (
            <BayBox key={bay.key} bay={bay}>
              {runs
                .filter((r) => bayOf(r) === bay.key)
                .map((run) => (
                  <RunCard
                    key={run.id}
                    run={run}
                    movable={may && waits(run)}
                    here={run.id === current}
                    onPress={() => onCurrent(run.id)}
                  />
                ))}
            </BayBox>
          ))}
        </View>
      </View>
      {/* Above all that scrolls: a list that scrolls would shift and clip it. */}
      {createPortal(<DragOverlay>{lifted && <RunFace run={lifted} here lifted />}</DragOverlay>, document.body)}
      {giving && chosen && (
        <GiveSheet
          run={chosen}
          bays={bays}
          onGive={(bay) => {
            setGiving(false);
            void give(chosen, bay);
          }}
          onClose={() => setGiving(false)}
        />
      )}
      {may && chosen && waits(chosen) && (
        <Row gap={8} style={{ paddingHorizontal: 12, paddingBottom: 12 }}>
          <Key title={t('board.give', { run: chosen.number })} onPress={() => setGiving(true)} />
          <Key title={t('board.sooner')} icon="arrow-up" onPress={() => urge(1)} />
          <Key title={t('board.later')} icon="arrow-down" onPress={() => urge(-1)} />
        </Row>
      )}
    </DndContext>
  );
}

function BayBox({ bay, children }: { bay: Bay; children: React.ReactNode[] }) {
  const { t } = useTranslation();
  const surface = useSurface();
  const { setNodeRef, isOver } = useDroppable({ id: bay.key });
  return (
    <View
      ref={setNodeRef as never}
      role="group"
      aria-label={bay.title}
      style={{
        flexGrow: 1,
        flexBasis: 220,
        minHeight: 96,
        gap: 6,
        padding: 8,
        borderWidth: isOver ? 2 : 1,
        margin: isOver ? 0 : 1,
        borderColor: isOver ? surface.ink : surface.line,
        borderRadius: 4,
        backgroundColor: isOver ? surface.chosen : surface.sunk,
      }}
    >
      <Row gap={8} style={{ justifyContent: 'space-between' }}>
        <Txt kind="label">{bay.title}</Txt>
        <Txt kind="small" colour="quiet">
          {t('board.count', { count: children.length })}
        </Txt>
      </Row>
      {children}
    </View>
  );
}

function RunCard({
  run,
  movable,
  here,
  onPress,
}: {
  run: RunSummary;
  movable: boolean;
  here: boolean;
  onPress: () => void;
}) {
  const { t } = useTranslation();
  const { setNodeRef, attributes, listeners, isDragging } = useDraggable({ id: run.id, disabled: !movable });
  return (
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
      <RunFace run={run} here={here} />
    </div>
  );
}

function RunFace({ run, here, lifted = false }: { run: RunSummary; here: boolean; lifted?: boolean }) {
  const { t } = useTranslation();
  const surface = useSurface();
  const share = run.picks > 0 ? run.picksDone / run.picks : 0;
  return (
    <View
      style={{
        gap: 2,
        padding: 8,
        borderWidth: here ? 2 : 1,
        borderColor: here ? surface.ink : surface.line,
        borderRadius: 4,
        backgroundColor: surface.raised,
        ...(lifted ? { width: 240 } : {}),
      }}
    >
      <Row gap={8} style={{ flexWrap: 'nowrap', justifyContent: 'space-between' }}>
        <Txt kind="strong" lines={1}>
          {run.number} · {run.callSign}
        </Txt>
        <Txt kind="small" colour="quiet">
          {run.priority > 0 ? t('board.urgent', { by: run.priority }) : t(`waves.runState.${run.state}`)}
        </Txt>
      </Row>
      <Txt kind="small" colour="quiet">
        {[
          t('unit.orders', { count: run.orders }),
          t('board.stops', { count: run.stops }),
          distance(run.metres),
          duration(run.secondsLeft),
        ].join(' · ')}
      </Txt>
      <Row gap={6} style={{ flexWrap: 'nowrap' }}>
        <Shape kind={run.proven ? 'done' : 'quiet'} size={12} />
        <Txt kind="small" colour="quiet" lines={1}>
          {[
            run.proven ? t('board.shortest') : t('board.atLeast', { metres: distance(run.lowerBound) }),
            run.area && t('board.area', { area: run.area }),
          ]
            .filter(Boolean)
            .join(' · ')}
        </Txt>
      </Row>
      {share > 0 && (
        <View style={{ height: 5, backgroundColor: surface.sunk }}>
          <View style={{ height: 5, width: `${share * 100}%`, backgroundColor: surface.done }} />
        </View>
      )}
    </View>
  );
}

function GiveSheet({
  run,
  bays,
  onGive,
  onClose,
}: {
  run: RunSummary;
  bays: Bay[];
  onGive: (bay: Bay) => void;
  onClose: () => void;
}) {
  const { t } = useTranslation();
  return (
    <Sheet
      title={t('board.give', { run: run.number })}
      onClose={onClose}
      keys={<Key title={t('release.cancel')} onPress={onClose} />}
    >
      {bays.map((bay) => (
        <Key key={bay.key} title={bay.title} pressed={bayOf(run) === bay.key} onPress={() => onGive(bay)} />
      ))}
    </Sheet>
  );
}
