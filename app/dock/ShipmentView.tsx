import { Link, useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Linking, useWindowDimensions, View } from 'react-native';
import type { ShipmentDetail } from '@hand-relay/contract';
import { addressOf, api, troubleOf, useMay, useMe, useNow, words } from '../state/index.ts';
import { headed, lotWords, moment, number, relative, mass, whereOf } from '../text/index.ts';
import {
  Card,
  Column,
  Facts,
  Failed,
  Button,
  Loading,
  Picker,
  Row,
  Rule,
  ScanField,
  Signal,
  Text,
  useShortcuts,
  WIDE,
} from '../ui/index.ts';
import { HoldBanner } from '../holds/index.ts';
import { Page, PrintKey } from '../shell/index.ts';

/** One shipment: its tracking number, what it holds, its documents, and the key that confirms it. */
export function ShipmentView({ id }: { id: string }) {
  const { t } = useTranslation();
  const router = useRouter();
  const me = useMe();
  const now = useNow();
  const { width } = useWindowDimensions();
  const seesOrder = useMay('orders.see');
  const { data, error, refetch } = api.useShipmentQuery(id);
  const back = () => router.navigate('/dock');
  useShortcuts({ Escape: back });
  if (error)
    return (
      <Page title="" onBack={back}>
        <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />
      </Page>
    );
  if (!data) return <Loading />;
  const { row } = data;
  return (
    <Page
      title={row.orderNumber}
      onBack={width < WIDE ? back : undefined}
      aside={width >= WIDE ? <Button title={t('notice.close')} icon="close" iconOnly onPress={back} /> : undefined}
    >
      {data.state === 'open' && <HoldBanner order={row.order} />}
      <Facts
        facts={[
          { name: t('order.customer'), value: row.customer },
          {
            name: t('order.departure'),
            value: row.departure
              ? `${row.departure}${row.leavesAt ? `, ${moment(row.leavesAt, me.site.timeZone, now)}, ${relative(row.leavesAt, now)}` : ''}`
              : '–',
          },
          {
            name: t('order.shipTo'),
            value: `${data.shipTo.name}, ${data.shipTo.street}, ${data.shipTo.postcode} ${data.shipTo.city}`,
          },
          row.loose
            ? {
                name: t('dock.loose'),
                value: `${t('unit.units', { count: data.state === 'confirmed' ? data.lines.reduce((n, l) => n + l.shipped, 0) : row.packed })}, ${mass(row.weightG)}`,
              }
            : { name: t('dock.cartons'), value: `${number(row.cartons)}, ${mass(row.weightG)}` },
          {
            name: t('order.carrier'),
            value:
              [row.carrier, row.service].filter(Boolean).join(', ') ||
              (data.withoutCarrier ? t('dock.withoutCarrier') : '–'),
          },
          ...(data.state === 'open'
            ? [{ name: t('order.lane'), value: whereOf(row) }]
            : [{ name: t('dock.trackingTitle'), value: row.tracking ?? '–' }]),
        ]}
      />
      {seesOrder && (
        <Link href={`/desk/orders/${row.order}`}>
          <Text kind="strong" style={{ textDecorationLine: 'underline' }}>
            {t('dock.toOrder', { number: row.orderNumber })}
          </Text>
        </Link>
      )}
      {data.state === 'confirmed' ? (
        <Signal
          kind="done"
          text={t('dock.confirmed', {
            time: data.confirmedAt ? moment(data.confirmedAt, me.site.timeZone, now) : '',
            name: data.confirmedBy,
          })}
          size="heading"
        />
      ) : (
        <>
          {data.services.length > 0 && <Carrier data={data} />}
          {!row.carrierMissing && <Tracking data={data} />}
          {/* What was refused is stale once a carrier or a number is there. */}
          <Confirm key={`${row.carrierMissing} ${row.tracking}`} data={data} />
        </>
      )}
      <Documents data={data} />
      <Lines data={data} />
    </Page>
  );
}

const OPEN = '';
const WITHOUT = 'without';

/** With which carrier it leaves: asked where nobody decided, else a choice that may still be changed. */
function Carrier({ data }: { data: ShipmentDetail }) {
  const { t } = useTranslation();
  const may = useMay('shipments.confirm');
  const [choose, { isLoading, error }] = api.useChooseCarrierMutation();
  const { row, services } = data;
  const chosen = services.find((s) => s.carrier === row.carrier && s.service === row.service);
  const value = chosen?.id ?? (data.withoutCarrier ? WITHOUT : OPEN);
  if (!may) return null;
  return (
    <Card gap={10}>
      <Row gap={12} style={{ justifyContent: 'space-between' }}>
        <Text kind="heading" level={2}>
          {t('order.carrier')}
        </Text>
        {row.carrierMissing && <Signal kind="caution" text={t('dock.missing')} size="body" />}
      </Row>
      {row.carrierMissing && <Text>{t('dock.carrierAsk')}</Text>}
      <Row>
        <Picker
          label={t('order.carrier')}
          value={value}
          disabled={isLoading}
          onChange={(next) => void choose({ id: row.shipment, service: next === WITHOUT ? null : next })}
          options={[
            ...(value === OPEN ? [{ value: OPEN, title: t('dock.chooseCarrier') }] : []),
            ...services.map((s) => ({ value: s.id, title: `${s.carrier}, ${s.service}` })),
            { value: WITHOUT, title: t('dock.withoutCarrier') },
          ]}
        />
      </Row>
      {error && <Failed text={words(troubleOf(error))} />}
    </Card>
  );
}

function Tracking({ data }: { data: ShipmentDetail }) {
  const { t } = useTranslation();
  const may = useMay('shipments.confirm');
  const { standins } = useMe();
  const [track, { isLoading, error }] = api.useTrackingMutation();
  const { shipment, tracking, carrier } = data.row;
  if (!data.needsTracking) return <Text colour="quiet">{`${t('dock.trackingTitle')}: ${t('dock.noneNeeded')}`}</Text>;
  return (
    <Card gap={10}>
      <Row gap={12} style={{ justifyContent: 'space-between' }}>
        <Text kind="heading" level={2}>
          {t('dock.trackingTitle')}
        </Text>
        {tracking ? (
          <Text kind="mono">{tracking}</Text>
        ) : (
          <Signal kind="caution" text={t('dock.missing')} size="body" />
        )}
      </Row>
      {may && (
        <>
          <ScanField
            size="desk"
            label={t('dock.scanTracking')}
            disabled={isLoading}
            onCode={(number) => void track({ id: shipment, from: 'person', number })}
          />
          {!tracking && standins && (
            <Row>
              <Button
                title={t('dock.getTracking', { carrier })}
                kind="act"
                busy={isLoading}
                onPress={() => void track({ id: shipment, from: 'carrier' })}
              />
            </Row>
          )}
        </>
      )}
      {error && <Failed text={words(troubleOf(error))} />}
    </Card>
  );
}

function Confirm({ data }: { data: ShipmentDetail }) {
  const { t } = useTranslation();
  const may = useMay('shipments.confirm');
  const [confirm, { isLoading, error }] = api.useConfirmMutation();
  const [deciding, setDeciding] = useState(false);
  if (!may) return null;
  const id = data.row.shipment;
  const short = data.lines.some((l) => l.packed < l.open);
  const go = async (rest: 'keep-open' | 'cancel' | null) => {
    const answer = await confirm({ id, rest });
    if (answer.error && troubleOf(answer.error).code === 'decide-rest') setDeciding(true);
  };
  const refused = error ? troubleOf(error) : null;
  const asks = deciding || short;
  return (
    <Column gap={8}>
      {asks && <Signal kind="caution" text={t('dock.confirmShort')} size="body" />}
      {refused && refused.code !== 'decide-rest' && <Failed text={words(refused)} />}
      <Row gap={8}>
        {asks ? (
          <>
            <Button kind="act" title={t('dock.keepOpen')} busy={isLoading} onPress={() => void go('keep-open')} />
            <Button title={t('dock.cancelRest')} busy={isLoading} onPress={() => void go('cancel')} />
          </>
        ) : (
          <Button kind="act" title={t('dock.confirm')} busy={isLoading} onPress={() => void go(null)} />
        )}
      </Row>
    </Column>
  );
}

function Documents({ data }: { data: ShipmentDetail }) {
  const { t } = useTranslation();
  const open = (name: 'packingSlip' | 'cartonLabel', id: string) => void Linking.openURL(addressOf({ name, id }));
  return (
    <Column gap={8}>
      <Text kind="heading" level={2}>
        {t('dock.documents')}
      </Text>
      <Row gap={8}>
        <Button
          icon="file-document-outline"
          title={t('order.slip')}
          onPress={() => open('packingSlip', data.row.shipment)}
        />
        <PrintKey kind="packing-slip" of={data.row.shipment} title={t('dock.printSlip')} />
        {data.cartons.map((c) => (
          <Button
            key={c.id}
            icon="printer-outline"
            disabled={!c.sscc}
            title={`${t('order.label')} ${c.number}`}
            onPress={() => open('cartonLabel', c.id)}
          />
        ))}
      </Row>
      {data.cartons.map((c) => (
        <Text key={c.id} kind="mono" colour="quiet">
          {`${c.number}  ${c.sscc ?? '–'}  ${c.type}  ${c.weightG === null ? '' : mass(c.weightG)}`}
        </Text>
      ))}
    </Column>
  );
}

function Lines({ data }: { data: ShipmentDetail }) {
  const { t } = useTranslation();
  const shown =
    data.state === 'confirmed'
      ? (['asked', 'shipped'] as const)
      : data.row.loose
        ? (['asked', 'picked'] as const)
        : (['asked', 'picked', 'packed'] as const);
  return (
    <Column gap={6}>
      <Text kind="heading" level={2}>
        {t('dock.lines')}
      </Text>
      {data.lines.map((l) => (
        <Column key={l.id} gap={6}>
          <Row gap={8} style={{ flexWrap: 'nowrap' }}>
            <View style={{ flex: 1, minWidth: 0 }}>
              <Text lines={1}>{l.name}</Text>
              <Text kind="small" colour="quiet">
                {l.line} · {l.sku}
              </Text>
              {l.lots.length > 0 && (
                <Text kind="small" colour="quiet">
                  {headed(lotWords(l.lots))}
                </Text>
              )}
            </View>
            {shown.map((f) => (
              <View key={f} style={{ width: 62, alignItems: 'flex-end' }}>
                <Text kind="small" colour="quiet">
                  {t(f === 'packed' ? 'dock.packedShort' : `dock.${f}`)}
                </Text>
                <Text kind="number" colour={f !== 'asked' && l[f] < l.asked ? 'caution' : 'ink'}>
                  {number(l[f])}
                </Text>
              </View>
            ))}
          </Row>
          <Rule />
        </Column>
      ))}
    </Column>
  );
}
