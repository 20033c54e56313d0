import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { PackagingList } from '@hand-relay/contract';
import { api, notify, troubleOf, useAppDispatch, useMe, useNow, words } from '../state/index.ts';
import { moment, number } from '../text/index.ts';
import {
  Button,
  Card,
  Column,
  Empty,
  Failed,
  Loading,
  Row,
  Signal,
  Text,
  useShortcuts,
  useSurface,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { PackagingSheet, type Doing } from './PackagingSheet.tsx';

type Type = PackagingList['types'][number];

/** What there is of each type of carton, pallet and crate, and what to do about it. */
export function PackagingView() {
  const { t } = useTranslation();
  const router = useRouter();
  const send = useAppDispatch();
  const { data, error, refetch } = api.usePackagingQuery();
  const [post, posting] = api.usePostPackagingMutation();
  const [doing, setDoing] = useState<{ type: Type; what: Doing } | null>(null);
  useShortcuts({ Escape: () => router.navigate('/setup') });
  const postDay = async () => {
    const done = await post();
    if (!done.data) return;
    const list = done.data.postings.map((p) => `${number(p.units)} × ${p.type}`).join(', ');
    send(notify({ kind: 'done', text: list ? t('packaging.posted', { list }) : t('packaging.nothingPosted') }));
  };
  const toPost = data?.types.reduce((n, type) => n + type.toPost, 0) ?? 0;
  return (
    <Page
      title={t('packaging.title')}
      onBack={() => router.navigate('/setup')}
      aside={
        toPost > 0 && (
          <Button
            title={t('packaging.post', { count: toPost })}
            busy={posting.isLoading}
            onPress={() => void postDay()}
          />
        )
      }
    >
      <Text>{t('packaging.about')}</Text>
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {posting.error && <Failed text={words(troubleOf(posting.error))} />}
      {!data && !error && <Loading rows={5} height={72} />}
      {data?.types.length === 0 && <Empty title={t('packaging.none')} text={t('packaging.noneText')} />}
      <View style={{ maxWidth: 1100, gap: 8 }}>
        {data?.types.map((type) => (
          <TypeRow key={type.id} type={type} onDo={(what) => setDoing({ type, what })} />
        ))}
      </View>
      {data && data.movements.length > 0 && <Movements movements={data.movements} />}
      {doing && <PackagingSheet type={doing.type} what={doing.what} onClose={() => setDoing(null)} />}
    </Page>
  );
}

function TypeRow({ type, onDo }: { type: Type; onDo: (what: Doing) => void }) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const [act, acting] = api.useActOnPackagingMutation();
  const stocked = type.accounting === 'daily' || type.accounting === 'with-unit';
  const looked = async () => {
    const done = await act({ id: type.id, act: 'looked' });
    if (done.data) send(notify({ kind: 'done', text: t('packaging.lookedDone', { name: type.name }) }));
  };
  const figures = stocked
    ? ([
        ['onHand', type.onHand],
        ['reserved', type.reserved],
        ['free', type.free],
        ['onOrder', type.onOrder],
      ] as const)
    : type.accounting === 'expense'
      ? ([['usedSince', type.usedSince]] as const)
      : [];
  const key = (name: 'receive' | 'count' | 'rule' | 'order', what: Doing) => (
    <Button
      size="small"
      title={t(`packaging.${name}`)}
      label={`${type.name}: ${t(`packaging.${name}`)}`}
      onPress={() => onDo(what)}
    />
  );
  return (
    <View role="group" aria-label={type.name}>
      <Card gap={8} pad={12}>
        <Row gap={16} style={{ justifyContent: 'space-between' }}>
          <Column gap={2} style={{ flexGrow: 1, flexBasis: 180, minWidth: 0 }}>
            <Text kind="strong">{type.name}</Text>
            <Text kind="small" colour="quiet">
              {t(`packaging.accounting.${type.accounting}`)}
            </Text>
          </Column>
          {figures.map(([name, value]) => (
            <View key={name} style={{ minWidth: 74, alignItems: 'flex-end' }}>
              <Text kind="small" colour="quiet">
                {t(`packaging.${name}`)}
              </Text>
              <Text kind="heading">{number(value)}</Text>
            </View>
          ))}
          <Row gap={8}>
            {stocked && key('receive', 'received')}
            {stocked && key('count', 'counted')}
            {key('rule', 'rule')}
          </Row>
        </Row>
        {type.propose > 0 && (
          <Row gap={12}>
            <Signal kind="caution" text={t('packaging.propose', { count: type.propose })} size="body" />
            {key('order', 'ordered')}
          </Row>
        )}
        {type.countWanted && <Signal kind="caution" text={t('packaging.countWanted')} size="body" />}
        {type.look && (
          <Row gap={12}>
            <Signal kind="caution" text={t('packaging.look')} size="body" />
            <Button
              size="small"
              title={t('packaging.looked')}
              label={`${type.name}: ${t('packaging.looked')}`}
              busy={acting.isLoading}
              onPress={() => void looked()}
            />
          </Row>
        )}
        {acting.error && <Failed text={words(troubleOf(acting.error))} />}
      </Card>
    </View>
  );
}

function Movements({ movements }: Pick<PackagingList, 'movements'>) {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const surface = useSurface();
  return (
    <View style={{ maxWidth: 1100 }}>
      <Text kind="heading" level={2}>
        {t('packaging.movements')}
      </Text>
      {movements.map((m, i) => (
        <Row
          key={`${m.at} ${m.type} ${i}`}
          gap={16}
          style={{ borderTopWidth: 1, borderColor: surface.line, minHeight: 36, justifyContent: 'space-between' }}
        >
          <Text colour="quiet" style={{ minWidth: 130 }}>
            {moment(m.at, me.site.timeZone, now)}
          </Text>
          <Text style={{ flexGrow: 1, flexBasis: 160 }}>
            {[
              m.type,
              `${t(`packaging.reason.${m.reason}`)} ${m.document}`.trim(),
              m.missing > 0 && t('packaging.missing', { count: m.missing }),
            ]
              .filter(Boolean)
              .join(' · ')}
          </Text>
          <Text colour="quiet">{m.person}</Text>
          <Text kind="number" style={{ minWidth: 56 }} align="right">
            {m.units > 0 ? `+${number(m.units)}` : number(m.units)}
          </Text>
        </Row>
      ))}
    </View>
  );
}
