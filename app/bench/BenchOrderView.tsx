import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Linking, useWindowDimensions, View } from 'react-native';
import type { BenchOrder } from '@hand-relay/contract';
import type { PackInput } from '@hand-relay/core/handling/packing';
import { addressOf, api, troubleOf, useMe, useNow, useAppDispatch, notify, words } from '../state/index.ts';
import { number, relative, mass, timeOf } from '../text/index.ts';
import {
  Card,
  CartDrawing,
  Column,
  Failed,
  Field,
  Button,
  Loading,
  Picture,
  Row,
  Rule,
  ScanField,
  Signal,
  Text,
  useShortcuts,
  useSurface,
  WIDE,
} from '../ui/index.ts';
import { HoldBanner } from '../holds/index.ts';
import { Page, PrintKey } from '../shell/index.ts';
import { thisBench } from './BenchChoice.tsx';
import { usePackInputs } from './usePackInputs.ts';

/** An order at the bench: what was picked on the left, the carton in hand on the right, one field for every scan. */
export function BenchOrderView({ id }: { id: string }) {
  const { t } = useTranslation();
  const router = useRouter();
  const me = useMe();
  const now = useNow();
  const { width } = useWindowDimensions();
  const { data: order, error, refetch } = api.useBenchOrderQuery(id);
  const back = () => router.navigate('/bench');
  useShortcuts({ Escape: back });
  const { said, input } = usePackInputs(id);
  if (error)
    return (
      <Page title="" onBack={back}>
        <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />
      </Page>
    );
  if (!order) return <Loading rows={4} height={80} />;
  const wide = width >= WIDE;
  const waiting = order.bench.loose.reduce((n, l) => n + l.units, 0);
  const { carton } = order.bench;
  return (
    <Page
      title={order.number}
      onBack={back}
      aside={
        <Text colour="quiet">
          {order.customer}
          {order.leavesAt
            ? ` · ${timeOf(order.leavesAt, me.site.timeZone, now)}, ${relative(order.leavesAt, now)}`
            : ''}
        </Text>
      }
    >
      <ScanField
        label={t(carton ? 'bench.askItem' : 'bench.askBox')}
        onCode={(text) => input({ kind: 'scan', text })}
      />
      <View aria-live="assertive" style={{ minHeight: 30 }}>
        {said && <Signal kind={said.kind} text={said.text} size="heading" />}
      </View>
      <HoldBanner order={order.id} />
      {order.surplus.map(({ item, name, units }) => (
        <Signal
          key={item}
          kind="refused"
          text={t('refusal.surplus-undecided', { item: name, units: number(units) })}
          size="body"
        />
      ))}
      {order.note !== '' && <Signal kind="caution" text={`${t('bench.noteTitle')}: ${order.note}`} size="body" />}
      {order.forBench !== '' && (
        <Signal kind="caution" text={`${t('bench.pickerNote')}: ${order.forBench}`} size="body" />
      )}
      {order.wishes !== '' && (
        <Signal
          kind="caution"
          text={`${t('bench.wishesTitle', { customer: order.customer })}: ${order.wishes}`}
          size="body"
        />
      )}
      <Where order={order} waiting={waiting} />
      <View style={{ flexDirection: wide ? 'row' : 'column', gap: 16, alignItems: wide ? 'flex-start' : 'stretch' }}>
        <View style={wide ? { flex: 3 } : {}}>
          <Goods order={order} onInput={input} />
        </View>
        <View style={[{ gap: 16 }, wide ? { flex: 2 } : {}]}>
          <InHand order={order} onInput={input} waiting={waiting} />
          <Cartons order={order} />
          {waiting === 0 && !carton && order.cartons.length > 0 && (
            <Button kind="act" size="floor" title={t('bench.next')} onPress={back} />
          )}
        </View>
      </View>
    </Page>
  );
}

function Where({ order, waiting }: { order: BenchOrder; waiting: number }) {
  const { t } = useTranslation();
  const here = order.where.filter((w) => w.state === 'left');
  const still = order.where.filter((w) => w.state !== 'left');
  return (
    <Row gap={16} style={{ alignItems: 'flex-start' }}>
      {here.map((w) => (
        <Column key={w.run} gap={6} style={{ width: 240, maxWidth: '100%' }}>
          <Text kind="heading">
            {w.callSign} · {w.position === 0 ? w.cart : t('bench.where', { cart: w.cart, position: w.position })}
          </Text>
          {w.position > 0 && waiting > 0 && (
            <CartDrawing
              front={w.front}
              cells={[]}
              target={w.position}
              label={t('bench.where', { cart: w.cart, position: w.position })}
              height={130}
            />
          )}
        </Column>
      ))}
      {still.length > 0 && (
        <Signal
          kind="caution"
          text={t('bench.elsewhere', { runs: still.map((w) => `${w.callSign} (${w.run})`).join(', ') })}
          size="body"
        />
      )}
      {waiting === 0 && order.cartons.length > 0 && !order.bench.carton && (
        <Signal kind="done" text={t('bench.allPacked')} size="body" />
      )}
      {waiting === 0 && order.cartons.length === 0 && (
        <Signal kind="quiet" text={t('bench.nothingPicked')} size="body" />
      )}
    </Row>
  );
}

/** Lines with released, picked and packed side by side, and what still lies loose to be put in. */
function Goods({ order, onInput }: { order: BenchOrder; onInput: (input: PackInput) => void }) {
  const { t } = useTranslation();
  return (
    <Card gap={0}>
      <Text kind="heading" level={2}>
        {t('bench.lines')}
      </Text>
      {order.lines.map((l) => {
        const loose = order.bench.loose.filter((x) => x.item.sku === l.sku);
        return (
          <Column key={l.line} gap={6} style={{ paddingTop: 12 }}>
            {/* On a phone the figures stand below: a name is never broken inside a word for them. */}
            <Row gap={12} style={{ alignItems: 'flex-start' }}>
              <View style={{ flexDirection: 'row', gap: 12, flexGrow: 1, flexBasis: 240, minWidth: 0 }}>
                <Picture name={l.picture} size={56} />
                <View style={{ flex: 1, minWidth: 0 }}>
                  <Text kind="heading">{l.name}</Text>
                  <Text kind="mono" colour="quiet">
                    {l.sku}
                  </Text>
                  {l.note !== '' && <Signal kind="caution" text={l.note} />}
                </View>
              </View>
              <Row gap={12} style={{ flexWrap: 'nowrap', marginLeft: 'auto' }}>
                {(['released', 'picked', 'packed'] as const).map((f) => (
                  <View key={f} style={{ minWidth: 60, alignItems: 'flex-end' }}>
                    <Text kind="small" colour="quiet">
                      {t(`bench.${f}`)}
                    </Text>
                    <Text
                      kind="heading"
                      colour={f === 'packed' && l.packed === l.picked && l.picked > 0 ? 'done' : 'ink'}
                    >
                      {number(l[f])}
                    </Text>
                  </View>
                ))}
              </Row>
            </Row>
            {order.bench.carton &&
              loose.map((x) => (
                // With the units: what was typed for more of them is no proposal for the rest.
                <PutIn key={`${x.lot ?? ''} ${x.serial ?? ''} ${x.units}`} loose={x} unit={l.unit} onInput={onInput} />
              ))}
            <Rule />
          </Column>
        );
      })}
    </Card>
  );
}

/** By touch: so many of it into the open carton. A serial number is scanned or touched one by one. */
function PutIn({
  loose,
  unit,
  onInput,
}: {
  loose: BenchOrder['bench']['loose'][number];
  unit: string;
  onInput: (input: PackInput) => void;
}) {
  const { t } = useTranslation();
  const [count, setCount] = useState(String(loose.units));
  const name = loose.lot ? t('floor.lot', { lot: loose.lot }) : (loose.serial ?? '');
  const put = () =>
    onInput(
      loose.serial
        ? { kind: 'scan', text: loose.serial }
        : { kind: 'put', item: loose.item.id, lot: loose.lot, units: Number(count) },
    );
  return (
    <Row gap={8} style={{ justifyContent: 'flex-end' }}>
      {name !== '' && (
        <Text kind="mono" colour="quiet">
          {name}
        </Text>
      )}
      {!loose.serial && (
        <View style={{ width: 90 }}>
          <Field
            label={t('floor.typeCount')}
            bare
            numeric
            value={count}
            onChange={(v) => setCount(v.replace(/\D/g, ''))}
            onSubmit={put}
          />
        </View>
      )}
      <Button
        title={t('bench.put', { units: `${loose.serial ? 1 : count || '0'} × ${unit}` })}
        disabled={!loose.serial && !(Number(count) > 0)}
        onPress={put}
      />
    </Row>
  );
}

/** The carton in hand, or the carton to take. */
function InHand({
  order,
  onInput,
  waiting,
}: {
  order: BenchOrder;
  onInput: (input: PackInput) => void;
  waiting: number;
}) {
  const { t } = useTranslation();
  const surface = useSurface();
  const { carton, boxes } = order.bench;
  if (!carton)
    return waiting === 0 ? null : (
      <Card gap={10}>
        <Text kind="heading" level={2}>
          {t('bench.proposed', { name: boxes.find((b) => b.code === order.proposed)?.name ?? '–' })}
        </Text>
        <Row gap={8}>
          {boxes.map((b) => (
            <Button
              key={b.code}
              size="floor"
              kind={b.code === order.proposed ? 'act' : 'plain'}
              title={b.name}
              label={t('bench.open', { name: b.name })}
              onPress={() => onInput({ kind: 'scan', text: b.code })}
            />
          ))}
        </Row>
      </Card>
    );
  const full = order.cartons.find((c) => c.id === carton.id);
  return (
    <Card gap={10} style={{ borderColor: surface.ink, borderWidth: 2 }}>
      <Row gap={12} style={{ justifyContent: 'space-between' }}>
        <Text kind="heading" level={2}>
          {t('bench.carton', { number: full?.number ?? 1 })} · {full?.type}
        </Text>
        <Text kind="heading">{mass(full?.weightG ?? 0)}</Text>
      </Row>
      {full?.contents.length === 0 && <Text colour="quiet">{t('bench.emptyCarton')}</Text>}
      {full?.contents.map((c) => (
        <Inside key={`${c.item}${c.lot}${c.serial}`} carton={carton.id} content={c} />
      ))}
      <Button
        kind={carton.contents.length === 0 ? 'plain' : 'act'}
        size="floor"
        title={t(carton.contents.length === 0 ? 'bench.discard' : 'bench.close')}
        onPress={() => onInput({ kind: 'scan', text: 'DO-CLOSE' })}
      />
    </Card>
  );
}

function Inside({ carton, content }: { carton: string; content: BenchOrder['cartons'][number]['contents'][number] }) {
  const { t } = useTranslation();
  const [unpack, { error, isLoading }] = api.useUnpackMutation();
  const { item, lot, serial, units } = content;
  return (
    <Column gap={2}>
      <Row gap={12} style={{ flexWrap: 'nowrap' }}>
        <Text kind="heading" style={{ minWidth: 40 }} align="right">
          {number(units)}
        </Text>
        <View style={{ flex: 1 }}>
          <Text>{content.name}</Text>
          {(lot || serial) !== '' && (
            <Text kind="mono" colour="quiet">
              {lot ? t('floor.lot', { lot }) : serial}
            </Text>
          )}
        </View>
        <Button
          title={t('bench.takeOut')}
          label={`${t('bench.takeOut')} ${content.name}`}
          busy={isLoading}
          onPress={() => void unpack({ id: carton, item, lot, serial, units })}
        />
      </Row>
      {error && <Failed text={words(troubleOf(error))} />}
    </Column>
  );
}

function Cartons({ order }: { order: BenchOrder }) {
  const { t } = useTranslation();
  const closed = order.cartons.filter((c) => c.state !== 'open');
  if (closed.length === 0) return null;
  const look = (id: string) => void Linking.openURL(addressOf({ name: 'cartonLabel', id }));
  return (
    <Card gap={12}>
      {closed.map((c) => (
        <Column key={c.id} gap={6}>
          <Row gap={12} style={{ justifyContent: 'space-between' }}>
            <Text kind="strong">
              {t('bench.carton', { number: c.number })} · {c.type} · {mass(c.weightG)}
            </Text>
            <Text kind="small" colour="quiet">
              {t(`bench.state.${c.state}`)}
            </Text>
          </Row>
          <Text kind="mono">{c.sscc}</Text>
          <Row gap={8}>
            <PrintKey kind="carton-label" of={c.id} station={thisBench(order.benches)} title={t('bench.printLabel')} />
            <Button icon="file-document-outline" title={t('bench.labelPdf')} onPress={() => look(c.id)} />
            {c.state === 'closed' && <Reopen carton={c} bench={thisBench(order.benches)} />}
          </Row>
        </Column>
      ))}
    </Card>
  );
}

/** Opens a closed carton again, for goods that must out of it or in. */
function Reopen({ carton, bench }: { carton: BenchOrder['cartons'][number]; bench: string }) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const [reopen, { error, isLoading }] = api.useReopenCartonMutation();
  const open = async () => {
    const done = await reopen({ id: carton.id, bench });
    if (done.data) send(notify({ kind: 'caution', text: t('bench.reopened', { number: carton.number }) }));
  };
  return (
    <>
      <Button title={t('bench.reopen')} busy={isLoading} onPress={() => void open()} />
      {error && <Failed text={words(troubleOf(error))} />}
    </>
  );
}
