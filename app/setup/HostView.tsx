import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { HostMessage } from '@hand-relay/contract';
import { api, troubleOf, useMe, useNow, words } from '../state/index.ts';
import { clock, dayOf, i18n, number } from '../text/index.ts';
import {
  Card,
  Column,
  Empty,
  Failed,
  Field,
  Button,
  Loading,
  Row,
  Signal,
  Text,
  useSurface,
  type SignalKind,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';

const amounts = ['orders', 'changes', 'cancellations'] as const;

/** The stand-in of a host system: what it sends, what the house answered, and the confirmations that it received. */
export function HostView() {
  const { t } = useTranslation();
  const router = useRouter();
  const { data, error, refetch } = api.useHostMessagesQuery();
  const [play, playing] = api.useHostPlayMutation();
  const [receive, receiving] = api.useHostReceiveMutation();
  const [stream, streaming] = api.useHostStreamMutation();
  const [typed, setTyped] = useState({ orders: '3', changes: '1', cancellations: '1', every: '20' });
  const value = (name: keyof typeof typed) => (/^\d+$/.test(typed[name].trim()) ? Number(typed[name]) : NaN);
  const wrong = (name: keyof typeof typed) => {
    const [least, most] = name === 'every' ? [2, 3600] : [0, 100];
    return value(name) >= least && value(name) <= most ? undefined : t('host.between', { least, most });
  };
  const good = amounts.every((a) => !wrong(a));
  const body = { orders: value('orders'), changes: value('changes'), cancellations: value('cancellations') };
  const failed = playing.error ?? receiving.error ?? streaming.error;
  return (
    <Page title={t('host.title')} onBack={() => router.navigate('/setup')}>
      <Text>{t('host.about')}</Text>
      <Card gap={12}>
        <Row gap={12} style={{ alignItems: 'flex-start' }}>
          {amounts.map((name) => (
            <View key={name} style={{ width: 130 }}>
              <Field
                numeric
                label={t(`host.${name}`)}
                value={typed[name]}
                onChange={(text) => setTyped({ ...typed, [name]: text })}
                error={wrong(name)}
              />
            </View>
          ))}
          <View style={{ width: 130 }}>
            <Field
              numeric
              label={t('host.every')}
              value={typed.every}
              onChange={(every) => setTyped({ ...typed, every })}
              error={wrong('every')}
            />
          </View>
        </Row>
        <Row gap={8}>
          <Button
            kind="act"
            title={t('host.send')}
            disabled={!good}
            busy={playing.isLoading}
            onPress={() => void play(body)}
          />
          {data?.stream ? (
            <Button
              title={t('host.stop')}
              busy={streaming.isLoading}
              onPress={() => void stream({ every: null, ...body })}
            />
          ) : (
            <Button
              title={t('host.start')}
              disabled={!good || Boolean(wrong('every'))}
              busy={streaming.isLoading}
              onPress={() => void stream({ every: value('every'), ...body })}
            />
          )}
          <Button
            title={t('host.receive', { count: data?.waiting ?? 0 })}
            disabled={!data || data.waiting === 0}
            busy={receiving.isLoading}
            onPress={() => void receive()}
          />
        </Row>
        {data?.stream && <Signal kind="done" text={t('host.running', data.stream)} size="body" />}
        {failed && <Failed text={words(troubleOf(failed))} />}
      </Card>
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading rows={4} />}
      {data?.messages.length === 0 && <Empty title={t('host.emptyTitle')} text={t('host.emptyText')} />}
      <View role="list" aria-label={t('host.title')}>
        {data?.messages.map((message) => (
          <Message key={message.id} message={message} />
        ))}
      </View>
    </Page>
  );
}

const signals: Record<string, SignalKind> = { refused: 'refused', 'under-way': 'caution', closed: 'caution' };

function Message({ message }: { message: HostMessage }) {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const router = useRouter();
  const surface = useSurface();
  const [find] = api.useLazyFindQuery();
  const { kind, order, facts, at, receivedAt } = message;
  const open = () =>
    void find({ code: `ORDER-${order}` }).then(({ data }) => data?.id && router.navigate(`/desk/orders/${data.id}`));
  return (
    <View
      role="listitem"
      style={{ flexDirection: 'row', gap: 12, paddingVertical: 8, borderTopWidth: 1, borderColor: surface.line }}
    >
      <View style={{ width: 84 }}>
        <Text kind="number" colour="quiet">
          {clock(at, me.site.timeZone)}
        </Text>
        <Text kind="small" colour="quiet">
          {dayOf(at, me.site.timeZone, now)}
        </Text>
      </View>
      <Column gap={2} style={{ flex: 1, minWidth: 0 }}>
        <Text kind="strong">{t(`host.kind.${kind}`, { order })}</Text>
        <Signal kind={signals[String(facts['outcome'])] ?? 'quiet'} text={said(message)} />
        {kind === 'confirmation' && (
          <Text kind="small" colour={receivedAt ? 'done' : 'caution'}>
            {receivedAt ? t('host.received', { time: clock(receivedAt, me.site.timeZone) }) : t('host.waits')}
          </Text>
        )}
      </Column>
      {facts['outcome'] !== 'unknown' && facts['outcome'] !== 'refused' && (
        <Button size="small" title={t('host.open', { order })} onPress={open} />
      )}
    </View>
  );
}

interface Confirmation {
  shipment: string;
  carrier: string | null;
  tracking: string | null;
  lines: { sku: string; units: number }[] | null;
  invoice: boolean;
}

/** What a message says, or what the house answered to it. */
function said({ kind, facts }: HostMessage): string {
  if (kind === 'confirmation') {
    const { shipment, carrier, tracking, lines, invoice } = facts as unknown as Confirmation;
    return [
      shipment,
      carrier,
      tracking ?? i18n.t('host.noTracking'),
      (lines ?? []).map((l) => `${number(l.units)} × ${l.sku}`).join(', '),
      invoice ? i18n.t('host.invoice') : i18n.t('host.noInvoice'),
    ]
      .filter(Boolean)
      .join(' · ');
  }
  const differences = (facts['differences'] ?? []) as { field: string; before: string; after: string }[];
  const picked = Number(facts['surplus'] ?? 0) > 0;
  const outcome = i18n.t(`host.outcome.${picked ? 'surplus' : String(facts['outcome'])}`, facts);
  return [outcome, ...differences.map((d) => `${d.field}: ${d.before || '–'} → ${d.after || '–'}`)].join(' · ');
}
