import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { BinCount } from '@hand-relay/contract';
import { outbox, useOutbox } from '../offline/index.ts';
import { api, randomKey, notify, troubleOf, useAppDispatch, words } from '../state/index.ts';
import { number } from '../text/index.ts';
import {
  Card,
  Column,
  Empty,
  Failed,
  Field,
  Button,
  Loading,
  Picture,
  Row,
  ScanField,
  Signal,
  Text,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { useCountCodes } from './useCountCodes.ts';

/** Bins that want counting, in walking order. What the books have is not told: who counts says what lies there. */
export function CountsView() {
  const { t } = useTranslation();
  const router = useRouter();
  const { data, error, refetch } = api.useCountsQuery();
  const [chosen, setChosen] = useState<string | null>(null);
  const { entries } = useOutbox();
  // What was counted here and is on its way wants no counting.
  const asked =
    data?.counts.filter(
      (c) => c.state === 'asked' && !entries.some((e) => e.after?.kind === 'counted' && e.after.count === c.id),
    ) ?? [];
  const count = asked.find((c) => c.id === chosen);
  const scanned = (code: string) => {
    const at = asked.find((c) => c.bin.toUpperCase() === code.trim().toUpperCase());
    if (at) setChosen(at.id);
  };
  if (count) return <CountCard key={count.id} count={count} onDone={() => setChosen(null)} />;
  return (
    <Page
      title={t('counts.title')}
      onBack={() => router.navigate('/floor')}
      {...(asked.length > 0 ? { foot: <ScanField label={t('counts.scanBin')} onCode={scanned} /> } : {})}
    >
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading rows={4} height={90} />}
      {data && asked.length === 0 && <Empty title={t('counts.noneTitle')} text={t('counts.noneText')} />}
      <Column gap={8}>
        {asked.map((c) => (
          <Card key={c.id} gap={6}>
            <Row gap={12} style={{ flexWrap: 'nowrap', justifyContent: 'space-between' }}>
              <View style={{ flex: 1, minWidth: 0 }}>
                <Text kind="title">{c.bin}</Text>
                <Text lines={2}>{c.item.name}</Text>
                <Text kind="small" colour="quiet">
                  {[t(`counts.reason.${c.reason}`), c.lot && t('floor.lot', { lot: c.lot }), c.note]
                    .filter(Boolean)
                    .join(' · ')}
                </Text>
              </View>
              <Button
                kind="act"
                size="floor"
                title={t('counts.count')}
                label={t('counts.countBin', { bin: c.bin, item: c.item.name })}
                onPress={() => setChosen(c.id)}
              />
            </Row>
          </Card>
        ))}
      </Column>
    </Page>
  );
}

function CountCard({ count, onDone }: { count: BinCount; onDone: () => void }) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const [take, { isLoading, error }] = api.useTakeCountMutation();
  const [units, setUnits] = useState('');
  const [serials, setSerials] = useState<string[]>([]);
  const [again, setAgain] = useState<string | null>(null);
  const { item } = count;
  useCountCodes((n) => n !== null && setUnits(String(n)), !item.tracksSerial);
  const say = async () => {
    const answer = await take({
      id: count.id,
      units: item.tracksSerial ? serials.length : Number(units),
      serials,
    });
    if (!answer.data) {
      if (troubleOf(answer.error).code === 'network') keepIt();
      return;
    }
    send(notify({ kind: 'done', text: t(`counts.taken.${answer.data.state}`, { bin: count.bin }) }));
    onDone();
  };
  /** Offline it is kept and sent later, like a scan. */
  const keepIt = () => {
    const counted = item.tracksSerial ? serials.length : Number(units);
    outbox.add({
      key: randomKey(),
      ask: { name: 'takeCount', id: count.id, body: { units: counted, serials } },
      verdict: null,
      after: { kind: 'counted', count: count.id },
      about: { run: '', bin: count.bin, item: item.name, units: counted },
    });
    send(notify({ kind: 'done', text: t('counts.taken.kept', { bin: count.bin }) }));
    onDone();
  };
  const scanned = (code: string) => {
    const serial = code.trim();
    setAgain(serials.includes(serial) ? serial : null);
    setSerials([...new Set([...serials, serial])]);
  };
  return (
    <Page
      title={t('counts.at', { bin: count.bin })}
      onBack={onDone}
      foot={
        <View style={{ gap: 10 }}>
          {item.tracksSerial ? (
            <ScanField label={t('floor.ask.serial')} onCode={scanned} />
          ) : (
            <Field
              size="floor"
              numeric
              focus
              label={t('counts.how', { unit: item.unit })}
              value={units}
              onChange={(v) => setUnits(v.replace(/\D/g, '').slice(0, 7))}
              onSubmit={() => units !== '' && void say()}
            />
          )}
          <Row gap={8} style={{ flexWrap: 'nowrap' }}>
            {!item.tracksSerial && <Button size="floor" title={t('counts.none')} onPress={() => setUnits('0')} />}
            <Button
              kind="act"
              size="floor"
              wide
              title={
                item.tracksSerial || units !== ''
                  ? t('counts.say', { units: number(item.tracksSerial ? serials.length : Number(units)) })
                  : t('counts.sayNothing')
              }
              busy={isLoading}
              disabled={!item.tracksSerial && units === ''}
              onPress={() => void say()}
            />
          </Row>
        </View>
      }
    >
      <Row gap={14} style={{ flexWrap: 'nowrap', alignItems: 'flex-start' }}>
        <Picture name={item.picture} size={92} />
        <View style={{ flex: 1, minWidth: 0, gap: 4 }}>
          <Text kind="large">{item.name}</Text>
          <Text kind="mono" colour="quiet">
            {item.sku}
          </Text>
          {count.lot !== '' && <Text kind="heading">{t('floor.lot', { lot: count.lot })}</Text>}
        </View>
      </Row>
      <Text colour="quiet">{t('counts.blind')}</Text>
      {again !== null && <Signal kind="caution" size="body" text={t('counts.again', { serial: again })} />}
      {serials.map((serial) => (
        <Row key={serial} gap={8} style={{ justifyContent: 'space-between' }}>
          <Text kind="mono">{serial}</Text>
          <Button
            size="small"
            title={t('counts.drop')}
            label={t('counts.dropSerial', { serial })}
            onPress={() => setSerials(serials.filter((s) => s !== serial))}
          />
        </Row>
      ))}
      {error && <Failed text={words(troubleOf(error))} />}
    </Page>
  );
}
