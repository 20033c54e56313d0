import { DndContext, DragOverlay, useDroppable, type DragEndEvent, type UniqueIdentifier } from '@dnd-kit/core';
import { useState } from 'react';
import { createPortal } from 'react-dom';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View } from 'react-native';
import type { RunSummary } from '@hand-relay/contract';
import { api, notify, troubleOf, useMay, useMe, useNow, useAppDispatch, words } from '../state/index.ts';
import { Failed, Button, Row, Sheet, Text, useShortcuts, useSurface, WIDE } from '../ui/index.ts';
import { bayOf, baysOf, blocksOf, type Bay } from './bays.ts';
import { orderOf, runUnder, underPointer } from './dropPlaces.ts';
import { Clock } from './Lane.tsx';
import { OrderChip, OrderChips } from './OrderChips.tsx';
import { PeopleRows } from './PeopleRows.tsx';
import { BlockFace } from './RunBlock.tsx';
import { RunCard, RunFace } from './RunCard.tsx';
import { RunOrders } from './RunOrders.tsx';
import { ordersOfRun, waits } from './runOrders.ts';
import { axisOf, LEAST, MOST } from './track.ts';
import { TrackRow } from './TrackRow.tsx';
import { useGiveRun } from './useGiveRun.ts';
import { useMoveOrders } from './useMoveOrders.ts';
import { useRunDrag } from './useRunDrag.ts';

const LIFTED = 160;

/**
 * Runs of a wave by who picks them: dragged from bay to bay, or carried by keys. On a wide screen people are rows of an
 * axis of time, with what they have of other waves; on a phone they are boxes.
 */
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
  const send = useAppDispatch();
  const may = useMay('runs.arrange');
  const { data: crew } = api.useCrewQuery();
  const me = useMe();
  const now = useNow();
  const wide = useWindowDimensions().width >= WIDE;
  const { assign, error, to, give } = useGiveRun();
  const [held, setHeld] = useState<string | null>(null);
  const [giving, setGiving] = useState(false);
  const [ordering, setOrdering] = useState(false);
  const moves = useMoveOrders();
  const [giveBack, givingBack] = api.useReturnRunMutation();
  const [handOver, handing] = api.useTransferRunMutation();
  const [passing, setPassing] = useState(false);
  const bays = crew
    ? baysOf(crew, runs, {
        anybody: t('board.anybody'),
        queue: (team) => t('board.queue', { team }),
        now,
        timeZone: me.site.timeZone,
      })
    : [];
  const carry = async (from: RunSummary, order: string, over: string) => {
    const onto = runUnder(over);
    if (onto === from.id) return;
    const bay = bays.find((b) => b.key === over);
    const made = await moves.move(from, [order], runs.find((r) => r.id === onto) ?? null);
    // Dropped on a person or a queue it becomes a run of its own, theirs to pick.
    if (made !== null && bay && bay.key !== bayOf(from)) await assign({ runs: [made], ...to(bay) });
  };
  const dropped = ({ active, over }: DragEndEvent) => {
    setHeld(null);
    const order = orderOf(active.id);
    if (order !== null) return void (chosen && over && carry(chosen, order, String(over.id)));
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
  const step = (by: number) =>
    order.length > 0 && onCurrent(order[Math.max(0, Math.min(at + by, order.length - 1))]!.id);
  useShortcuts(
    {
      j: () => step(1),
      k: () => step(-1),
      ArrowDown: () => step(1),
      ArrowUp: () => step(-1),
      o: () => may && chosen && waits(chosen) && setOrdering(true),
      g: () => may && chosen && waits(chosen) && setGiving(true),
      '+': () => may && urge(1),
      '-': () => may && urge(-1),
    },
    held === null,
  );
  const lifted = runs.find((r) => r.id === held);
  const liftedBlock = crew?.runs.find((r) => r.id === held);
  const shows = may && chosen !== undefined && waits(chosen);
  const { data: detail } = api.useRunQuery(chosen?.id ?? '', { skip: !shows });
  const orders = shows && detail?.run.id === chosen.id ? ordersOfRun(detail) : [];
  const order1 = orders.find((o) => o.id === orderOf(held));
  const back = async (run: RunSummary) => {
    const done = await giveBack(run.id);
    if (!done.error) send(notify({ kind: 'done', text: t('board.back', { run: run.number }) }));
  };
  /** A run whose picker has gone home goes on with somebody else, or with whoever takes its cart next. */
  const pass = async (run: RunSummary, bay: Bay) => {
    setPassing(false);
    const done = await handOver({ id: run.id, person: bay.person });
    if (!done.error)
      send(notify({ kind: 'done', text: t('board.given', { run: run.number, to: bay.title }), about: run.id }));
  };
  // What is carried, and over what, is said aloud: by names, not by keys.
  const nameOf = (key: UniqueIdentifier) => {
    const run = runs.find((r) => r.id === (runUnder(key) ?? key));
    const order = orders.find((o) => o.id === orderOf(key));
    return order
      ? t('board.order', { order: order.number })
      : run
        ? t('board.run', { run: run.number, sign: run.callSign })
        : (bays.find((b) => b.key === key)?.title ?? '');
  };
  const drag = useRunDrag(nameOf);
  const ids = new Set(runs.map((r) => r.id));
  const ahead = crew
    ? bays.flatMap((b) => {
        const last = blocksOf(
          crew.runs.filter((r) => b.person !== null && bayOf(r) === b.key),
          now,
          crew.pace,
          b.span,
        ).at(-1);
        return last ? [last.to] : [];
      })
    : [];
  const axis = axisOf(now, ahead, MOST.hours, LEAST.wave);
  return (
    <DndContext
      {...drag}
      collisionDetection={underPointer}
      onDragStart={({ active }) => setHeld(String(active.id))}
      onDragEnd={dropped}
      onDragCancel={() => setHeld(null)}
    >
      <View style={{ gap: 10, padding: 12 }}>
        {may && (
          <Text kind="small" colour="quiet">
            {t('board.hint')}
          </Text>
        )}
        {[error, moves.error, givingBack.error, handing.error].map(
          (trouble, i) => trouble !== undefined && <Failed key={i} text={words(troubleOf(trouble))} />,
        )}
        {wide && crew && (
          <View>
            <TrackRow wide height={24}>
              <Clock axis={axis} now={now} />
            </TrackRow>
            <PeopleRows
              bays={bays}
              runs={crew.runs}
              pace={crew.pace}
              axis={axis}
              now={now}
              wide
              movable={(run) => may && ids.has(run.id) && waits(run)}
              foreign={(run) => !ids.has(run.id)}
              takesOrders
              held={crew.runs.find((r) => r.id === held) ?? null}
              current={current}
              onPress={(run) => ids.has(run.id) && onCurrent(run.id)}
              under={(bay) =>
                chosen && bayOf(chosen) === bay.key && orders.length > 1 && <OrderChips orders={orders} />
              }
            />
          </View>
        )}
        {!wide && (
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
                    >
                      {run.id === chosen?.id && orders.length > 1 && <OrderChips orders={orders} />}
                    </RunCard>
                  ))}
              </BayBox>
            ))}
          </View>
        )}
      </View>
      {/* Above all that scrolls: a list that scrolls would shift and clip it. */}
      {createPortal(
        <DragOverlay>
          {lifted && wide && liftedBlock && <BlockFace run={liftedBlock} width={LIFTED} here />}
          {lifted && !wide && <RunFace run={lifted} here lifted />}
          {order1 && <OrderChip order={order1} lifted />}
        </DragOverlay>,
        document.body,
      )}
      {passing && chosen && (
        <GiveSheet
          title={t('board.handOver', { run: chosen.number })}
          run={chosen}
          bays={bays.filter((b) => b.key === 'team ' || (b.person !== null && b.person !== chosen.pickerId))}
          onGive={(bay) => void pass(chosen, bay)}
          onClose={() => setPassing(false)}
        />
      )}
      {giving && chosen && (
        <GiveSheet
          title={t('board.give', { run: chosen.number })}
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
          <Button title={t('board.give', { run: chosen.number })} onPress={() => setGiving(true)} />
          <Button title={t('board.sooner')} icon="arrow-up" onPress={() => urge(1)} />
          <Button title={t('board.later')} icon="arrow-down" onPress={() => urge(-1)} />
          <Button title={t('board.orders')} onPress={() => setOrdering(true)} />
        </Row>
      )}
      {may && chosen?.state === 'picking' && (
        <Row gap={8} style={{ paddingHorizontal: 12, paddingBottom: 12 }}>
          <Button title={t('board.handOver', { run: chosen.number })} onPress={() => setPassing(true)} />
          {chosen.unitsPicked === 0 && (
            <Button title={t('board.takeBack', { run: chosen.number })} icon="undo" onPress={() => void back(chosen)} />
          )}
        </Row>
      )}
      {ordering && chosen && waits(chosen) && <RunOrders run={chosen} runs={runs} onClose={() => setOrdering(false)} />}
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
        // Its size stays: what is carried must not move what it is carried over.
        padding: isOver ? 7 : 8,
        borderWidth: isOver ? 2 : 1,
        borderColor: isOver ? surface.ink : surface.line,
        borderRadius: 4,
        backgroundColor: isOver ? surface.chosen : surface.sunk,
      }}
    >
      <Row gap={8} style={{ justifyContent: 'space-between' }}>
        <Text kind="label">
          {bay.title}
          {bay.shift !== '' && <Text kind="small" colour="quiet">{`  ${bay.shift}`}</Text>}
        </Text>
        <Text kind="small" colour="quiet">
          {t('board.count', { count: children.length })}
        </Text>
      </Row>
      {children}
    </View>
  );
}

function GiveSheet({
  title,
  run,
  bays,
  onGive,
  onClose,
}: {
  title: string;
  run: RunSummary;
  bays: Bay[];
  onGive: (bay: Bay) => void;
  onClose: () => void;
}) {
  const { t } = useTranslation();
  return (
    <Sheet title={title} onClose={onClose} keys={<Button title={t('release.cancel')} onPress={onClose} />}>
      {bays.map((bay) => (
        <Button key={bay.key} title={bay.title} pressed={bayOf(run) === bay.key} onPress={() => onGive(bay)} />
      ))}
    </Sheet>
  );
}
