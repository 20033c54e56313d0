import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { PalletList } from '@hand-relay/contract';
import { api, deviceName, remembered, startOf, troubleOf, placesOf, useMe, useNow, words } from '../state/index.ts';
import { mass, moment } from '../text/index.ts';
import {
  Button,
  Card,
  Choice,
  Column,
  Empty,
  Failed,
  LinkBox,
  Loading,
  Row,
  ScanField,
  Shape,
  Signal,
  Text,
  useShortcuts,
  useSurface,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';

type Group = PalletList['groups'][number];
type Pallet = PalletList['pallets'][number];

/** Closed cartons that stand on no pallet, by departure, to be stacked; and the pallets that there are. */
export function PalletsView() {
  const { t } = useTranslation();
  const router = useRouter();
  const me = useMe();
  const now = useNow();
  const { data, error, refetch } = api.usePalletsQuery();
  const [find] = api.useLazyFindQuery();
  const [open, opening] = api.useOpenPalletMutation();
  const [type, setType] = useState<string>();
  const [how, setHow] = useState<'interlocked' | 'columns'>('interlocked');
  const [wrong, setWrong] = useState<string | null>(null);
  const from = placesOf(me).find((p) => p === 'dock' || p === 'bench') ?? 'dock';
  const back = () => router.navigate(startOf(me, from));
  useShortcuts({ Escape: back });
  const chosen = type ?? data?.types[0]?.id;
  const show = (id: string) => router.navigate(`/pallets/${id}`);
  const build = async (orders: string[]) => {
    if (!chosen) return;
    const station = remembered('bench') ?? deviceName();
    const done = await open({ type: chosen, orders, interlocked: how === 'interlocked', station });
    if (done.data) show(done.data.id);
  };
  const scanned = async (code: string) => {
    const { data: found, error: failed } = await find({ code });
    if (failed) return setWrong(words(troubleOf(failed)));
    if (found?.kind === 'pallet' && found.id) return show(found.id);
    const order = found?.orders[0];
    const waiting = data?.groups.flatMap((g) => g.orders).find((o) => o.id === order);
    setWrong(null);
    if (waiting) return build([waiting.id]);
    return setWrong(found?.kind === 'void' ? t('scan.void', { name: found.name }) : t('scan.nothing', { code }));
  };
  return (
    <Page title={t('pallets.title')} onBack={back}>
      <ScanField label={t('pallets.find')} onCode={(code) => void scanned(code)} />
      {wrong !== null && (
        <View role="alert">
          <Signal kind="refused" text={wrong} size="strong" />
        </View>
      )}
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {opening.error && <Failed text={words(troubleOf(opening.error))} />}
      {!data && !error && <Loading rows={3} height={100} />}
      {data && (
        <>
          <Row gap={16}>
            <Choice
              label={t('pallets.type')}
              value={chosen ?? ''}
              onChange={setType}
              options={data.types.map(({ id, name }) => ({ value: id, title: name }))}
            />
            <Choice
              label={t('pallets.layers')}
              value={how}
              onChange={setHow}
              options={(['interlocked', 'columns'] as const).map((value) => ({ value, title: t(`pallets.${value}`) }))}
            />
            <Button title={t('pallets.empty')} busy={opening.isLoading} onPress={() => void build([])} />
          </Row>
          {data.pallets.length > 0 && (
            <Text kind="heading" level={2}>
              {t('pallets.all')}
            </Text>
          )}
          <Row gap={12} style={{ alignItems: 'stretch' }}>
            {data.pallets.map((pallet) => (
              <PalletBox key={pallet.id} pallet={pallet} onOpen={() => show(pallet.id)} />
            ))}
          </Row>
          <Text kind="heading" level={2}>
            {t('pallets.waiting')}
          </Text>
          {data.groups.length === 0 && <Empty title={t('pallets.none')} text={t('pallets.noneText')} />}
          {data.groups.map((group) => (
            <Waiting
              key={`${group.departure?.name ?? ''} ${group.departure?.leavesAt ?? ''}`}
              group={group}
              when={group.departure?.leavesAt ? moment(group.departure.leavesAt, me.site.timeZone, now) : ''}
              busy={opening.isLoading}
              onBuild={(orders) => void build(orders)}
            />
          ))}
        </>
      )}
    </Page>
  );
}

/** What leaves together: stacked as a whole, or order by order. */
function Waiting({
  group,
  when,
  busy,
  onBuild,
}: {
  group: Group;
  when: string;
  busy: boolean;
  onBuild: (orders: string[]) => void;
}) {
  const { t } = useTranslation();
  const surface = useSurface();
  const name = group.departure?.name ?? t('pallets.noDeparture');
  const cartons = group.orders.reduce((n, o) => n + o.cartons, 0);
  const weight = group.orders.reduce((n, o) => n + o.weightG, 0);
  return (
    <Card gap={0} pad={0}>
      <Row gap={16} style={{ justifyContent: 'space-between', padding: 12 }}>
        <Column gap={2}>
          <Text kind="heading">{[when, name].filter(Boolean).join(' · ')}</Text>
          <Text colour="quiet">
            {t('pallets.cartons', { count: cartons })} · {mass(weight)}
          </Text>
        </Column>
        <Button
          title={t('pallets.build')}
          label={t('pallets.buildFor', { name })}
          busy={busy}
          onPress={() => onBuild(group.orders.map((o) => o.id))}
        />
      </Row>
      {group.orders.map((o) => (
        <Row
          key={o.id}
          gap={16}
          style={{
            justifyContent: 'space-between',
            borderTopWidth: 1,
            borderColor: surface.line,
            paddingHorizontal: 12,
            paddingVertical: 6,
            minHeight: 56,
          }}
        >
          <Row gap={12} style={{ flexGrow: 1, flexBasis: 220 }}>
            <Text kind="strong">{o.number}</Text>
            <Text colour="quiet" lines={1}>
              {o.customer}
            </Text>
          </Row>
          <Text kind="number">
            {t('pallets.cartons', { count: o.cartons })} · {mass(o.weightG)}
          </Text>
          {group.orders.length > 1 && (
            <Button
              size="small"
              title={t('pallets.build')}
              label={t('pallets.buildFor', { name: o.number })}
              busy={busy}
              onPress={() => onBuild([o.id])}
            />
          )}
        </Row>
      ))}
    </Card>
  );
}

function PalletBox({ pallet, onOpen }: { pallet: Pallet; onOpen: () => void }) {
  const { t } = useTranslation();
  const surface = useSurface();
  const { number, type, state, units, planned, weightG, customers, outer } = pallet;
  return (
    <LinkBox
      href={`/pallets/${pallet.id}`}
      label={t('pallets.one', { number })}
      onOpen={onOpen}
      style={{
        flexGrow: 1,
        flexBasis: 240,
        maxWidth: 380,
        minHeight: 96,
        padding: 12,
        borderWidth: 1,
        borderColor: state === 'open' ? surface.quiet : surface.line,
        borderRadius: 4,
      }}
    >
      <Row gap={12} style={{ justifyContent: 'space-between' }}>
        <Text kind="heading">{number}</Text>
        <Row gap={6}>
          {state !== 'open' && <Shape kind="done" size={12} />}
          <Text kind="small" colour="quiet">
            {t(`pallets.state.${state}`)}
          </Text>
        </Row>
      </Row>
      <Text kind="small" colour="quiet" lines={1}>
        {[type, ...customers].join(' · ')}
      </Text>
      <Text kind="small">
        {[
          state === 'open' && planned > 0
            ? t('pallets.planned', { on: units, planned })
            : t('pallets.on', { count: units }),
          mass(weightG),
          outer && t('pallets.stands', { pallet: outer }),
        ]
          .filter(Boolean)
          .join(' · ')}
      </Text>
    </LinkBox>
  );
}
