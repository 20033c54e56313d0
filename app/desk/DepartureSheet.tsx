import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Pressable, View } from 'react-native';
import { localDate } from '@hand-relay/core/calendar';
import { troubleOf, useMe, useNow, words } from '../state/index.ts';
import { clock, dayName, headed, relative } from '../text/index.ts';
import { Button, Empty, Failed, Loading, Sheet, Text, useSurface } from '../ui/index.ts';
import { departuresOf } from './departures.ts';
import { listingOf } from './listing.ts';
import { ReleaseKeys } from './ReleaseKeys.tsx';
import { ReleaseLook } from './ReleaseLook.tsx';
import { useOrders } from './useOrders.ts';
import { useRelease } from './useRelease.ts';

/** A departure's whole day in one act: everything that can move and leaves with it is released. */
export function DepartureSheet({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const surface = useSurface();
  const { listed, read, reading, outlook } = useOrders(listingOf({}));
  const today = localDate(now, me.site.timeZone);
  const departures = departuresOf(listed, today);
  const [key, setKey] = useState<string | null>(null);
  const chosen = departures.find((d) => d.key === key);
  const { look, failed, refused, busy, again, go } = useRelease({ orders: chosen?.orders ?? [], lines: {} }, null);
  const waits = !read || reading || outlook.at === null;
  return (
    <Sheet
      title={chosen ? t('departure.of', { name: chosen.name }) : t('departure.title')}
      onClose={onClose}
      keys={
        <>
          {chosen && <Button title={t('nav.back')} icon="arrow-left" onPress={() => setKey(null)} />}
          <Button title={t('release.cancel')} onPress={onClose} />
          {chosen && (
            <ReleaseKeys
              orders={look?.orders ?? chosen.orders.length}
              disabled={!look || look.units === 0}
              busy={busy}
              onGo={(how) => void go(how).then((done) => done && onClose())}
            />
          )}
        </>
      }
    >
      {!chosen && waits && <Loading rows={4} />}
      {!chosen && !waits && departures.length === 0 && (
        <Empty title={t('departure.none')} text={t('departure.noneText')} />
      )}
      {!chosen && !waits && (
        <View role="list" aria-label={t('departure.title')}>
          {departures.map((d) => (
            <View key={d.key} role="listitem">
              <Pressable
                role="button"
                aria-label={t('departure.row', { name: d.name, orders: t('unit.orders', { count: d.orders.length }) })}
                onPress={() => setKey(d.key)}
                style={{
                  minHeight: 56,
                  flexDirection: 'row',
                  alignItems: 'center',
                  gap: 16,
                  borderBottomWidth: 1,
                  borderColor: surface.line,
                }}
              >
                <Text kind="large" style={{ width: 72, fontVariant: ['tabular-nums'] }}>
                  {d.leavesAt ? clock(d.leavesAt, me.site.timeZone) : '–'}
                </Text>
                <View style={{ flex: 1, minWidth: 0 }}>
                  <Text kind="strong" lines={1}>
                    {d.name || t('orders.noDeparture')}
                  </Text>
                  <Text kind="small" colour={d.leavesAt && Date.parse(d.leavesAt) < now ? 'caution' : 'quiet'}>
                    {[headed(dayName(d.day, me.site.timeZone, now)), d.leavesAt && relative(d.leavesAt, now)]
                      .filter(Boolean)
                      .join(', ')}
                  </Text>
                </View>
                <Text kind="number">
                  {t('unit.orders', { count: d.orders.length })}, {t('unit.units', { count: d.units })}
                </Text>
              </Pressable>
            </View>
          ))}
        </View>
      )}
      {chosen && failed && <Failed text={words(troubleOf(failed))} onRetry={again} />}
      {chosen && refused && <Failed text={words(troubleOf(refused))} />}
      {chosen && !look && !failed && <Loading rows={3} />}
      {chosen && look && <ReleaseLook look={look} now={now} />}
    </Sheet>
  );
}
