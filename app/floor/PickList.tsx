import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Pressable, View } from 'react-native';
import type { RunPick } from '@hand-relay/contract';
import { remember, remembered } from '../state/index.ts';
import { distance, i18n, number } from '../text/index.ts';
import { Button, Picture, Row, Shape, Text, useNarrow, useSurface } from '../ui/index.ts';

/** What the list says of a pick beside bin, goods and units: as its reader chooses. */
const columns = ['picture', 'order', 'lot', 'zone', 'left', 'why'] as const;
type Column = (typeof columns)[number];
const USUAL: readonly Column[] = ['picture', 'order', 'lot'];
const CHOSEN = 'pick-columns';

const chosenColumns = (): Column[] => {
  const chosen = remembered(CHOSEN);
  return chosen === null ? [...USUAL] : columns.filter((c) => chosen.split(' ').includes(c));
};

/** Why a pick is sent to its bin. */
function binWhy({ why, saves }: Pick<RunPick, 'why' | 'saves'>): string {
  return why === 'walk' && saves > 0
    ? i18n.t('floor.binWhy.saves', { walk: distance(saves) })
    : i18n.t(`floor.binWhy.${why}`);
}

const says: Record<Exclude<Column, 'picture'>, (pick: RunPick) => string> = {
  order: (p) => (p.together ? '' : `${p.order.number} · ${i18n.t('floor.place', { number: p.step.position.number })}`),
  lot: (p) => (p.step.lot ? i18n.t('floor.lot', { lot: p.step.lot }) : ''),
  zone: (p) => p.zone,
  left: (p) => i18n.t('floor.remains', { count: p.remains }),
  why: binWhy,
};

/** All picks of a run in walking order; one that is open can be taken out of turn. */
export function PickList({
  picks,
  onChoose,
  current,
}: {
  picks: RunPick[];
  onChoose?: (pick: string) => void;
  current?: string;
}) {
  const { t } = useTranslation();
  const surface = useSurface();
  const [shown, setShown] = useState(chosenColumns);
  const [choosing, setChoosing] = useState(false);
  const turn = (column: Column) => {
    const next = columns.filter((c) => (c === column ? !shown.includes(c) : shown.includes(c)));
    remember(CHOSEN, next.join(' '));
    setShown(next);
  };
  const narrow = useNarrow();
  const lines = shown.filter((c) => c !== 'picture');
  const bin = (p: RunPick) => (
    <Text kind="heading" style={narrow ? {} : { width: 76 }}>
      {p.step.bin}
    </Text>
  );
  return (
    <View style={{ gap: 6 }}>
      <Row gap={6}>
        <Button
          size="small"
          icon="view-column-outline"
          title={t('floor.columns')}
          pressed={choosing}
          onPress={() => setChoosing(!choosing)}
        />
        {choosing &&
          columns.map((c) => (
            <Button
              key={c}
              size="small"
              title={t(`floor.column.${c}`)}
              pressed={shown.includes(c)}
              onPress={() => turn(c)}
            />
          ))}
      </Row>
      <View role="list" style={{ gap: 6 }}>
        {picks.map((p) => {
          const open = p.state === 'open';
          const free = open && p.step.stopped?.by !== 'hold' && onChoose;
          const said = lines.map((c) => says[c](p)).filter(Boolean);
          return (
            <Pressable
              key={p.step.id}
              role={free ? 'button' : 'listitem'}
              disabled={!free}
              onPress={() => onChoose?.(p.step.id)}
              style={{
                flexDirection: 'row',
                alignItems: 'center',
                gap: 12,
                minHeight: 64,
                padding: 8,
                borderWidth: p.step.id === current ? 2 : 1,
                borderColor: p.step.id === current ? surface.ink : surface.line,
                borderRadius: 4,
              }}
            >
              <View style={{ width: 16 }}>
                {!open ? (
                  <Shape kind={p.state === 'done' ? 'done' : 'caution'} />
                ) : p.step.stopped ? (
                  <Shape kind="refused" />
                ) : (
                  p.progress.counted > 0 && <Shape kind="quiet" />
                )}
              </View>
              {!narrow && bin(p)}
              {shown.includes('picture') && !narrow && <Picture name={p.picture} size={40} />}
              <View style={{ flex: 1, minWidth: 0 }}>
                {narrow && bin(p)}
                <Text lines={narrow ? 2 : 1}>{p.step.item.name}</Text>
                {said.length > 0 && (
                  <Text kind="small" colour="quiet" lines={2}>
                    {said.join(' · ')}
                  </Text>
                )}
              </View>
              <Text kind="heading">
                {open && p.progress.counted === 0
                  ? number(p.step.units)
                  : `${number(open ? p.progress.counted : p.picked)}/${number(p.step.units)}`}
              </Text>
            </Pressable>
          );
        })}
      </View>
    </View>
  );
}
