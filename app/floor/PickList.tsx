import { useTranslation } from 'react-i18next';
import { Pressable, View } from 'react-native';
import type { RunPick } from '@hand-relay/contract';
import { number } from '../text/index.ts';
import { Picture, Shape, Txt, useSurface } from '../ui/index.ts';

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
  return (
    <View role="list" style={{ gap: 6 }}>
      {picks.map((p) => {
        const open = p.state === 'open';
        return (
          <Pressable
            key={p.step.id}
            role={open && onChoose ? 'button' : 'listitem'}
            disabled={!open || !onChoose}
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
            <View style={{ width: 16 }}>{!open && <Shape kind={p.state === 'done' ? 'done' : 'caution'} />}</View>
            <Txt kind="heading" style={{ width: 76 }}>
              {p.step.bin}
            </Txt>
            <Picture name={p.picture} size={40} />
            <View style={{ flex: 1, minWidth: 0 }}>
              <Txt lines={1}>{p.step.item.name}</Txt>
              <Txt kind="small" colour="quiet" lines={1}>
                {[
                  ...(p.together ? [] : [p.order.number, t('floor.place', { number: p.step.position.number })]),
                  p.step.lot ? t('floor.lot', { lot: p.step.lot }) : '',
                ]
                  .filter(Boolean)
                  .join(' · ')}
              </Txt>
            </View>
            <Txt kind="heading">{open ? number(p.step.units) : `${number(p.picked)}/${number(p.step.units)}`}</Txt>
          </Pressable>
        );
      })}
    </View>
  );
}
