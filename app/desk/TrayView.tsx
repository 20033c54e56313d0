import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View } from 'react-native';
import {
  add,
  api,
  fill,
  toggle,
  troubleOf,
  useAppSelector,
  useMay,
  useMe,
  useNow,
  useAppDispatch,
  words,
} from '../state/index.ts';
import { clock, dayName, number } from '../text/index.ts';
import { Choice, Empty, Failed, Button, Loading, Row, Text, useShortcuts, useSurface, WIDE } from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { ChangeSheet } from './ChangeSheet.tsx';
import { DeskTabs } from './DeskTabs.tsx';
import { ListExport } from './ListExport.tsx';
import { listingOf, type Listed } from './listing.ts';
import { ReadyMark } from './ReadyMark.tsx';
import { ReleaseKeys } from './ReleaseKeys.tsx';
import { ReleaseLook } from './ReleaseLook.tsx';
import { TrayByConditions } from './TrayByConditions.tsx';
import { useOrders } from './useOrders.ts';
import { useRelease } from './useRelease.ts';

/** What is put together for release: its sums, its chances, and the wave that it goes into. */
export function TrayView() {
  const { t } = useTranslation();
  const router = useRouter();
  const send = useAppDispatch();
  const now = useNow();
  const wide = useWindowDimensions().width >= WIDE;
  const surface = useSurface();
  const [mayRelease, mayChange] = [useMay('orders.release'), useMay('orders.change')];
  const tray = useAppSelector((s) => s.tray);
  const { listed, read } = useOrders(listingOf({}));
  const { data: waves } = api.useWavesQuery();
  const [wave, setWave] = useState('');
  const [changing, setChanging] = useState(false);
  const gathering = (waves?.waves ?? []).filter((w) => w.state === 'gathering');
  const into = gathering.some((w) => w.id === wave) ? wave : '';
  const { look, failed, looking, refused, busy, again, go } = useRelease(tray, into || null);
  const inTray = new Set(tray.orders);
  const rows = listed.filter((r) => inTray.has(r.id));
  useShortcuts({ Escape: () => router.navigate('/desk'), r: () => look && look.units > 0 && void go() }, !changing);
  const release = mayRelease && (
    <Row gap={8}>
      <Choice
        label={t('tray.into')}
        value={into}
        onChange={setWave}
        options={[
          { value: '', title: t('tray.newWave') },
          ...gathering.map((w) => ({ value: w.id, title: t('waves.number', { number: w.number }) })),
        ]}
      />
      <ReleaseKeys
        orders={look?.orders ?? tray.orders.length}
        disabled={!look || look.units === 0}
        busy={busy || looking}
        onGo={(how) => void go(how)}
      />
    </Row>
  );
  return (
    <Page title={t('tray.title')} aside={<DeskTabs at="tray" />} foot={tray.orders.length > 0 ? release : undefined}>
      {!read && <Loading rows={4} />}
      {read && tray.orders.length === 0 && (
        <Empty
          title={t('tray.emptyTitle')}
          text={t('tray.emptyText')}
          action={{ title: t('waves.toOrders'), onPress: () => router.navigate('/desk') }}
        />
      )}
      <View style={wide ? { flexDirection: 'row', gap: 32 } : { gap: 24 }}>
        <View style={{ flex: wide ? 3 : undefined, minWidth: 0, gap: 16 }}>
          {tray.orders.length > 0 && (
            <>
              {failed && <Failed text={words(troubleOf(failed))} onRetry={again} />}
              {refused && <Failed text={words(troubleOf(refused))} />}
              {!look && !failed && <Loading rows={3} />}
              {look && <ReleaseLook look={look} now={now} />}
            </>
          )}
          {mayRelease && <TrayByConditions rows={listed} onAdd={(orders) => send(add(orders))} />}
        </View>
        {tray.orders.length > 0 && (
          <View style={{ flex: wide ? 2 : undefined, minWidth: 0 }}>
            <Row gap={8} style={{ justifyContent: 'space-between', paddingBottom: 8 }}>
              <Text kind="heading" level={2}>
                {t('unit.orders', { count: rows.length })}
              </Text>
              <Row gap={4}>
                {mayChange && <Button title={t('change.key')} size="small" onPress={() => setChanging(true)} />}
                <Button title={t('tray.empty')} size="small" onPress={() => send(fill({ orders: [] }))} />
              </Row>
            </Row>
            <View role="list" aria-label={t('tray.title')} style={{ borderTopWidth: 1, borderColor: surface.line }}>
              {rows.slice(0, 200).map((row) => (
                <TrayRow key={row.id} row={row} onDrop={() => send(toggle(row.id))} />
              ))}
            </View>
            {rows.length > 200 && (
              <Text kind="small" colour="quiet">
                {t('release.more', { count: rows.length - 200 })}
              </Text>
            )}
            <View style={{ paddingTop: 8 }}>
              <ListExport
                name="tray"
                rows={() =>
                  rows.map((r) => ({
                    order: r.number,
                    customer: r.customer,
                    due: r.due,
                    lines: r.lines,
                    units: r.asked - r.released,
                  }))
                }
              />
            </View>
          </View>
        )}
      </View>
      {changing && (
        <ChangeSheet
          orders={tray.orders}
          title={t('change.keyCount', { count: tray.orders.length })}
          onClose={() => setChanging(false)}
        />
      )}
    </Page>
  );
}

function TrayRow({ row, onDrop }: { row: Listed; onDrop: () => void }) {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const surface = useSurface();
  const exact = useAppSelector((s) => s.tray.lines);
  const { data: order } = api.useOrderQuery(row.id, { skip: Object.keys(exact).length === 0 });
  const set = (order?.lines ?? []).filter((l) => exact[l.id] !== undefined);
  const leaves = row.leavesAt ? clock(row.leavesAt, me.site.timeZone) : '';
  return (
    <View role="listitem" style={{ borderBottomWidth: 1, borderColor: surface.line, paddingVertical: 6 }}>
      <Row gap={8} style={{ flexWrap: 'nowrap', justifyContent: 'space-between' }}>
        <View style={{ flex: 1, minWidth: 0 }}>
          <Text lines={1}>
            <Text kind="strong">{row.number}</Text> {row.customer}
          </Text>
          <Text kind="small" colour="quiet" lines={1}>
            {[dayName(row.due, me.site.timeZone, now), leaves, row.departure].filter(Boolean).join(' ')} ·{' '}
            {t('unit.units', { count: row.asked - row.released })}
          </Text>
          {set.map((l) => (
            <Text key={l.id} kind="small">
              {t('tray.exact', { line: l.line, name: l.name, units: number(exact[l.id]!) })}
            </Text>
          ))}
        </View>
        {row.outlook && <ReadyMark row={row.outlook} now={now} timeZone={me.site.timeZone} />}
        <Button title={t('tray.drop', { number: row.number })} icon="close" iconOnly size="small" onPress={onDrop} />
      </Row>
    </View>
  );
}
