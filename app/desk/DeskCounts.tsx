import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { BinCount } from '@hand-relay/contract';
import { api, troubleOf, useMe, words } from '../state/index.ts';
import { clock, number } from '../text/index.ts';
import {
  Column,
  Empty,
  Failed,
  Field,
  Illustration,
  Button,
  Loading,
  Row,
  Signal,
  Text,
  useShortcuts,
  useSurface,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { DeskTabs } from './DeskTabs.tsx';

/** Bins that pickers found wrong: those that wait for a count, and counts that differ from the books. */
export function DeskCounts() {
  const { t } = useTranslation();
  const router = useRouter();
  const { data, error, refetch } = api.useCountsQuery();
  useShortcuts({ Escape: () => router.navigate('/desk') });
  return (
    <Page title={t('counts.desk.title')} aside={<DeskTabs at="counts" />}>
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading rows={3} />}
      {data?.counts.length === 0 && <Empty title={t('counts.desk.noneTitle')} text={t('counts.desk.noneText')} />}
      <Column gap={12}>
        {data?.counts.map((count) => (
          <OneCount key={count.id} count={count} />
        ))}
      </Column>
      {data && <Want />}
    </Page>
  );
}

function OneCount({ count }: { count: BinCount }) {
  const { t } = useTranslation();
  const me = useMe();
  const surface = useSurface();
  const [settle, { isLoading, error }] = api.useSettleCountMutation();
  const differs = count.state === 'counted';
  const time = (at: string) => clock(at, me.site.timeZone);
  return (
    <View style={{ borderWidth: 1, borderColor: differs ? surface.caution : surface.line, padding: 12, gap: 8 }}>
      <Row gap={16} style={{ alignItems: 'flex-start' }}>
        <View style={{ flex: 1, minWidth: 240, gap: 4 }}>
          <Text kind="heading">
            {[count.bin, count.item.name, count.lot && t('floor.lot', { lot: count.lot })].filter(Boolean).join(' · ')}
          </Text>
          <Text kind="small" colour="quiet">
            {[
              t(`counts.reason.${count.reason}`),
              count.run && t('counts.desk.run', { run: count.run }),
              t('counts.desk.asked', { person: count.askedBy, time: time(count.askedAt) }),
              count.countedBy &&
                t('counts.desk.counted', { person: count.countedBy, time: time(count.countedAt ?? count.askedAt) }),
            ]
              .filter(Boolean)
              .join(' · ')}
          </Text>
          {count.note !== '' && <Text>{count.note}</Text>}
          {differs ? (
            <Signal
              kind="caution"
              size="body"
              text={t('counts.desk.difference', { booked: number(count.booked!), counted: number(count.counted!) })}
            />
          ) : (
            <Text colour="quiet">{t('counts.desk.waits')}</Text>
          )}
        </View>
        {count.pictures.map((name) => (
          <Illustration
            key={name}
            uri={`/api/pictures/${name.replace(/^own:/, '')}`}
            words={t('counts.desk.picture', { bin: count.bin })}
            style={{ width: 160, height: 120 }}
          />
        ))}
      </Row>
      {error && <Failed text={words(troubleOf(error))} />}
      <Row gap={8}>
        {differs && (
          <>
            <Button
              kind="act"
              title={t('counts.desk.agree')}
              label={t('counts.desk.agreeing', { bin: count.bin, item: count.item.name })}
              busy={isLoading}
              onPress={() => void settle({ id: count.id, decision: 'agree' })}
            />
            <Button
              title={t('counts.desk.again')}
              disabled={isLoading}
              onPress={() => void settle({ id: count.id, decision: 'again' })}
            />
          </>
        )}
        <Button
          title={t('counts.desk.drop')}
          disabled={isLoading}
          onPress={() => void settle({ id: count.id, decision: 'drop' })}
        />
      </Row>
    </View>
  );
}

/** Somebody at the Desk wants to know. */
function Want() {
  const { t } = useTranslation();
  const [bin, setBin] = useState('');
  const [item, setItem] = useState('');
  const [lot, setLot] = useState('');
  const [want, { isLoading, error }] = api.useWantCountMutation();
  const go = async () => {
    if (!bin.trim() || !item.trim()) return;
    const done = await want({ bin, item, lot });
    if (done.data) {
      setBin('');
      setItem('');
      setLot('');
    }
  };
  return (
    <Column gap={8}>
      <Text kind="heading" level={2}>
        {t('counts.desk.want')}
      </Text>
      <Row gap={12} style={{ alignItems: 'flex-end' }}>
        <View style={{ width: 180 }}>
          <Field label={t('counts.desk.bin')} value={bin} onChange={setBin} onSubmit={() => void go()} />
        </View>
        <View style={{ width: 180 }}>
          <Field label={t('counts.desk.item')} value={item} onChange={setItem} onSubmit={() => void go()} />
        </View>
        <View style={{ width: 180 }}>
          <Field label={t('counts.desk.lot')} value={lot} onChange={setLot} onSubmit={() => void go()} />
        </View>
        <Button
          title={t('counts.desk.go')}
          busy={isLoading}
          disabled={!bin.trim() || !item.trim()}
          onPress={() => void go()}
        />
      </Row>
      {error && <Failed text={words(troubleOf(error))} />}
    </Column>
  );
}
