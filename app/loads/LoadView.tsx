import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View } from 'react-native';
import type { LoadDetail, LoadShare } from '@hand-relay/contract';
import { api, notify, troubleOf, useMay, useMe, useNow, useAppDispatch, words } from '../state/index.ts';
import { clock, dayName, mass } from '../text/index.ts';
import {
  Column,
  Empty,
  Failed,
  Field,
  Button,
  Loading,
  Row,
  Signal,
  Text,
  useShortcuts,
  useSurface,
  WIDE,
} from '../ui/index.ts';
import { ListExport } from '../desk/index.ts';
import { Page } from '../shell/index.ts';
import { LoadBars } from './LoadBars.tsx';
import { LoadFloor } from './LoadFloor.tsx';
import { WhenAndWhere } from './LoadsView.tsx';
import { PlanSheet } from './PlanSheet.tsx';

const SHOWN = 100;

/** One load: how full it is, what is in it, and what could still go in. */
export function LoadView({ id }: { id: string }) {
  const { t } = useTranslation();
  const router = useRouter();
  const send = useAppDispatch();
  const wide = useWindowDimensions().width >= WIDE;
  const mayPlan = useMay('orders.release');
  const { data: load, error, refetch } = api.useLoadQuery(id);
  const { data: list } = api.useLoadsQuery();
  const [fill, filling] = api.useFillLoadMutation();
  const [dissolve, dissolving] = api.useCancelLoadMutation();
  const [changing, setChanging] = useState(false);
  const back = () => router.navigate('/desk/loads');
  useShortcuts({ Escape: back }, !changing);
  if (error)
    return (
      <Page title="" onBack={back}>
        <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />
      </Page>
    );
  if (!load) return <Loading />;
  const put = async (body: { add?: string[]; remove?: string[]; whatFits?: boolean }) => {
    const before = new Set(load.shares.map((s) => s.id));
    const done = await fill({ id, ...body });
    if (!done.data) return;
    const added = done.data.shares.filter((s) => !before.has(s.id)).map((s) => s.id);
    const text = body.remove
      ? t('loads.out', { orders: t('unit.orders', { count: body.remove.length }) })
      : t('loads.in', { orders: t('unit.orders', { count: added.length }) });
    const undo = { name: 'fillLoad' as const, id, body: { add: body.remove ?? [], remove: added } };
    send(notify({ kind: 'done', text, ...(added.length + (body.remove?.length ?? 0) > 0 ? { undo } : {}) }));
  };
  const giveUp = async () => {
    const done = await dissolve(id);
    if (done.error) return;
    back();
    const { vehicle, departure, door, note, shares } = load;
    const again = { vehicle, departure, door, note, orders: shares.map((s) => s.id) };
    send(
      notify({
        kind: 'done',
        text: t('loads.dissolved', { number: load.number }),
        undo: { name: 'planLoad', body: again },
      }),
    );
  };
  return (
    <Page title={t('loads.number', { number: load.number })} onBack={back}>
      {load.state === 'dissolved' && <Signal kind="quiet" text={t('loads.isDissolved')} size="body" />}
      <View style={wide ? { flexDirection: 'row', gap: 32 } : { gap: 20 }}>
        <View style={{ flex: wide ? 2 : undefined, minWidth: 0, gap: 12 }}>
          <Text kind="strong">{load.vehicle}</Text>
          <WhenAndWhere load={load} />
          <LoadFloor
            widthMm={list?.vehicles.find((v) => v.name === load.vehicle)?.widthMm ?? 2400}
            places={load.fill.most.places}
            taken={load.fill.places}
          />
          <LoadBars fill={load.fill} />
          <Text kind="small" colour="quiet">
            {t('loads.rough')}
          </Text>
          {mayPlan && load.state === 'planned' && (
            <Row gap={8}>
              <Button title={t('loads.change')} onPress={() => setChanging(true)} />
              <Button
                kind="danger"
                title={t('loads.dissolve')}
                busy={dissolving.isLoading}
                onPress={() => void giveUp()}
              />
            </Row>
          )}
          {filling.error && <Failed text={words(troubleOf(filling.error))} />}
          {dissolving.error && <Failed text={words(troubleOf(dissolving.error))} />}
          <Inside load={load} may={mayPlan} onOut={(share) => void put({ remove: [share.id] })} />
        </View>
        {mayPlan && load.state === 'planned' && (
          <View style={{ flex: wide ? 3 : undefined, minWidth: 0 }}>
            <Candidates id={id} busy={filling.isLoading} onIn={(add, whatFits) => void put({ add, whatFits })} />
          </View>
        )}
      </View>
      {changing && <PlanSheet load={load} onClose={() => setChanging(false)} onPlanned={() => setChanging(false)} />}
    </Page>
  );
}

function Inside({ load, may, onOut }: { load: LoadDetail; may: boolean; onOut: (share: LoadShare) => void }) {
  const { t } = useTranslation();
  return (
    <Column gap={4}>
      <Text kind="heading" level={2}>
        {t('loads.inside')}
      </Text>
      {load.shares.length === 0 && <Text colour="quiet">{t('loads.nothingInside')}</Text>}
      {load.shares.length > 0 && (
        <ListExport
          name={`load-${load.number}`}
          rows={() =>
            load.shares.map((s) => ({
              order: s.number,
              customer: s.customer,
              city: s.city,
              due: s.due,
              units: s.units,
              weight_g: s.weightG,
              volume_cm3: Math.round(s.volumeCm3),
              pallets: Math.round(s.pallets * 100) / 100,
            }))
          }
        />
      )}
      <View role="list" aria-label={t('loads.inside')}>
        {load.shares.map((share) => (
          <Share key={share.id} share={share}>
            {may && load.state === 'planned' && (
              <Button
                size="small"
                icon="close"
                iconOnly
                title={t('loads.takeOut', { number: share.number })}
                onPress={() => onOut(share)}
              />
            )}
          </Share>
        ))}
      </View>
    </Column>
  );
}

function Candidates({
  id,
  busy,
  onIn,
}: {
  id: string;
  busy: boolean;
  onIn: (orders: string[], whatFits: boolean) => void;
}) {
  const { t } = useTranslation();
  const { data, error, refetch } = api.useLoadCandidatesQuery(id);
  const [find, setFind] = useState('');
  const wanted = find.trim().toLowerCase();
  // What fits comes first, in the order in which it leaves.
  const shown = (data?.shares ?? [])
    .filter((s) => !wanted || `${s.number} ${s.customer} ${s.city}`.toLowerCase().includes(wanted))
    .sort((a, b) => Number(b.fits) - Number(a.fits));
  return (
    <Column gap={8}>
      <Row gap={12} style={{ justifyContent: 'space-between' }}>
        <Text kind="heading" level={2}>
          {t('loads.candidates')}
        </Text>
        <Button
          kind="act"
          size="small"
          title={t('loads.fillUp')}
          busy={busy}
          disabled={!shown.some((s) => s.fits)}
          onPress={() =>
            onIn(
              shown.map((s) => s.id),
              true,
            )
          }
        />
      </Row>
      <Field bare label={t('loads.find')} placeholder={t('loads.find')} value={find} onChange={setFind} />
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading rows={4} />}
      {data && shown.length === 0 && <Empty title={t('loads.noneTitle')} text={t('loads.noneText')} />}
      <View role="list" aria-label={t('loads.candidates')}>
        {shown.slice(0, SHOWN).map((share) => (
          <Share key={share.id} share={share}>
            <Button
              size="small"
              title={t('loads.putIn')}
              label={t('loads.putInNumber', { number: share.number })}
              onPress={() => onIn([share.id], false)}
            />
          </Share>
        ))}
      </View>
      {shown.length > SHOWN && (
        <Text kind="small" colour="quiet">
          {t('release.more', { count: shown.length - SHOWN })}
        </Text>
      )}
    </Column>
  );
}

function Share({ share, children }: { share: LoadShare; children: React.ReactNode }) {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const surface = useSurface();
  const leaves = share.leavesAt ? clock(share.leavesAt, me.site.timeZone) : '';
  return (
    <View
      role="listitem"
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 8,
        paddingVertical: 6,
        borderBottomWidth: 1,
        borderColor: surface.line,
      }}
    >
      <View style={{ flex: 1, minWidth: 0 }}>
        <Text lines={1}>
          <Text kind="strong">{share.number}</Text> {share.customer}, {share.city}
        </Text>
        <Text kind="small" colour="quiet" lines={2}>
          {[
            `${dayName(share.due, me.site.timeZone, now)} ${leaves}`.trim(),
            mass(share.weightG),
            `${(share.volumeCm3 / 1_000_000).toFixed(2)} m³`,
            t('loads.pallets', { pallets: share.pallets.toFixed(2) }),
            share.released === 0 ? t('loads.notReleased') : '',
            share.fits ? '' : t('loads.noFit'),
          ]
            .filter(Boolean)
            .join(' · ')}
        </Text>
      </View>
      {children}
    </View>
  );
}
