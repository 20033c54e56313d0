import { Link } from 'expo-router';
import type { ReactNode } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { api, troubleOf, useMe, useNow, words } from '../state/index.ts';
import { dayName, headed, number } from '../text/index.ts';
import { Column, Failed, Loading, Text, useSurface } from '../ui/index.ts';

/** Where an item lies, bin by bin, and for whom it is reserved. Each bin leads to its movements. */
export function ItemStock({ id }: { id: string }) {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const { data, error, refetch } = api.useItemStockQuery(id);
  if (error) return <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />;
  if (!data) return <Loading rows={3} />;
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 40, rowGap: 20 }}>
      <Section title={t('itemStock.bins')} none={t('itemStock.noBins')}>
        {data.bins.map((b) => (
          <Line
            key={`${b.id} ${b.lot}`}
            href={`/desk/trace?place=${b.id}`}
            name={b.bin}
            says={[
              b.lot && t('lots.lot', { lot: b.lot }),
              b.bestBefore && t('itemStock.until', { day: dayName(b.bestBefore, me.site.timeZone, now) }),
              b.blocked && t(`find.state.${b.blocked}`, { defaultValue: b.blocked }),
              b.toPick > 0 && t('itemStock.toPick', { units: number(b.toPick) }),
            ]}
            units={b.units}
          />
        ))}
      </Section>
      <Section title={t('itemStock.reserved')} none={t('itemStock.noReserved')}>
        {data.reserved.map((r) => (
          <Line
            key={`${r.order.id} ${r.line} ${r.lot} ${r.wave?.id ?? ''}`}
            href={`/desk/orders/${r.order.id}`}
            name={r.order.number}
            says={[
              r.customer,
              r.lot && t('lots.lot', { lot: r.lot }),
              r.wave ? t('waves.number', { number: r.wave.number }) : t('itemStock.ahead'),
            ]}
            units={r.units}
          />
        ))}
      </Section>
    </View>
  );
}

function Section({ title, none, children }: { title: string; none: string; children: ReactNode[] }) {
  return (
    <Column gap={2} style={{ flexGrow: 1, flexBasis: 300, maxWidth: 520 }}>
      <Text kind="heading" level={2}>
        {title}
      </Text>
      {children.length === 0 ? (
        <Text colour="quiet">{none}</Text>
      ) : (
        <View role="list" aria-label={title}>
          {children}
        </View>
      )}
    </Column>
  );
}

function Line({
  href,
  name,
  says,
  units,
}: {
  href: string;
  name: string;
  says: (string | null | false | undefined)[];
  units: number;
}) {
  const surface = useSurface();
  return (
    <View
      role="listitem"
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 12,
        minHeight: 44,
        borderBottomWidth: 1,
        borderColor: surface.line,
      }}
    >
      <View style={{ flex: 1, minWidth: 0 }}>
        <Link href={href}>
          <Text kind="mono">{name}</Text>
        </Link>
        <Text kind="small" colour="quiet" lines={1}>
          {headed(says.filter(Boolean).join(' · '))}
        </Text>
      </View>
      <Text kind="number">{number(units)}</Text>
    </View>
  );
}
