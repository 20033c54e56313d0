import { Link } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View } from 'react-native';
import type { DayAnswer } from '@hand-relay/contract';
import { number } from '../text/index.ts';
import { Shape, Text, useSurface, WIDE } from '../ui/index.ts';

/** What else is not settled, whatever order it is of: each leads to where it is dealt with. */
export function LeftOver({ left }: { left: DayAnswer['left'] }) {
  const { t } = useTranslation();
  const surface = useSurface();
  // A phone has room for what is left alone.
  const wide = useWindowDimensions().width >= WIDE;
  const all = [
    { key: 'exceptions', count: left.exceptions, href: '/desk/exceptions' },
    { key: 'counts', count: left.counts, href: '/desk/counts' },
    { key: 'surplus', count: left.surplus, href: '/desk/surplus' },
    { key: 'putAways', count: left.putAways, href: '/floor' },
    { key: 'carts', count: left.carts, href: '/waves' },
    { key: 'absent', count: left.absent.length, href: '/waves' },
  ] as const;
  return (
    <View role="list" aria-label={t('day.left')} style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
      {all
        .filter(({ count }) => wide || count > 0)
        .map(({ key, count, href }) => {
          const says = `${t(`day.of.${key}`)} ${number(count)}`;
          const box = (
            <View
              style={{
                flexDirection: 'row',
                alignItems: 'center',
                gap: 8,
                minHeight: 44,
                paddingHorizontal: 12,
                borderWidth: 1,
                borderRadius: 4,
                borderColor: count > 0 ? surface.caution : surface.line,
              }}
            >
              <Shape kind={count > 0 ? 'caution' : 'done'} size={14} />
              <Text>{t(`day.of.${key}`)}</Text>
              <Text kind="strong">{number(count)}</Text>
            </View>
          );
          return (
            <View key={key} role="listitem" aria-label={says}>
              {count > 0 ? (
                <Link
                  href={key === 'absent' && left.absent[0] ? `/floor/runs/${left.absent[0].id}` : href}
                  aria-label={says}
                >
                  {box}
                </Link>
              ) : (
                box
              )}
            </View>
          );
        })}
    </View>
  );
}
