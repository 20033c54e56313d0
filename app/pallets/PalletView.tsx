import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Linking, useWindowDimensions, View } from 'react-native';
import type { PalletDetail } from '@hand-relay/contract';
import { addressOf, api, deviceName, remembered, troubleOf, useMe, useNow, words } from '../state/index.ts';
import { mass, moment, number, tall } from '../text/index.ts';
import {
  BoxDrawing,
  Button,
  Card,
  Column,
  Failed,
  Loading,
  Row,
  SaidBand,
  ScanField,
  Signal,
  Text,
  useShortcuts,
  useSurface,
  WIDE,
} from '../ui/index.ts';
import { Page, PrintKey } from '../shell/index.ts';
import { UnitList } from './UnitList.tsx';
import { useStackInputs } from './useStackInputs.ts';

const DRAWING = { width: 340, height: 300 };
const SIDE = 380;

/** A pallet as it is built: what comes next with its place, the drawing that follows, and what is on it layer by layer. */
export function PalletView({ id }: { id: string }) {
  const { t } = useTranslation();
  const router = useRouter();
  const me = useMe();
  const now = useNow();
  const wide = useWindowDimensions().width >= WIDE;
  const { data: pallet, error, refetch } = api.usePalletQuery(id);
  const station = remembered('bench') ?? deviceName();
  const { said, scanned, gone } = useStackInputs(id, station);
  const back = () => router.navigate('/pallets');
  useShortcuts({ Escape: back });
  if (gone) {
    return (
      <Page title={t('pallets.title')} onBack={back}>
        <Signal kind="done" text={t('pallets.discarded')} size="strong" />
      </Page>
    );
  }
  if (error)
    return (
      <Page title="" onBack={back}>
        <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />
      </Page>
    );
  if (!pallet) return <Loading rows={3} height={100} />;
  const on = pallet.places.filter((p) => p.on).length + pallet.besides.length;
  const next = pallet.places.findIndex((p) => !p.on);
  const drawing = (
    <View key="drawing" style={wide ? { width: SIDE } : {}}>
      <Card gap={8}>
        <Drawn pallet={pallet} next={pallet.state === 'open' ? next : -1} on={on} />
        {pallet.pallets > 1 && (
          <Text kind="small" colour="quiet">
            {t('pallets.ofPallets', { pallets: number(pallet.pallets), bound: number(pallet.bound) })}
          </Text>
        )}
      </Card>
    </View>
  );
  return (
    <Page
      title={t('pallets.one', { number: pallet.number })}
      onBack={back}
      aside={
        <Text colour="quiet">
          {[
            pallet.type.name,
            pallet.departure?.name,
            pallet.departure?.leavesAt && moment(pallet.departure.leavesAt, me.site.timeZone, now),
          ]
            .filter(Boolean)
            .join(' · ')}
        </Text>
      }
    >
      {pallet.state === 'open' && <ScanField label={t('pallets.ask')} onCode={scanned} />}
      <SaidBand said={said} />
      <View style={{ flexDirection: wide ? 'row' : 'column', gap: 16, alignItems: wide ? 'flex-start' : 'stretch' }}>
        <View style={[{ gap: 16 }, wide ? { flex: 1, minWidth: 0 } : {}]}>
          {pallet.state === 'open' && <Next pallet={pallet} next={next} />}
          {!wide && drawing}
          <UnitList pallet={pallet} />
          <Acts pallet={pallet} on={on} onClose={() => scanned('DO-CLOSE')} station={station} />
        </View>
        {wide && drawing}
      </View>
    </Page>
  );
}

/** What goes on next, large, with its layer. */
function Next({ pallet, next }: { pallet: PalletDetail; next: number }) {
  const { t } = useTranslation();
  const surface = useSurface();
  const unit = pallet.places[next];
  const layers = Math.max(0, ...pallet.places.map((p) => p.layer));
  if (!unit)
    return (
      <Signal
        kind={pallet.places.length > 0 ? 'done' : 'quiet'}
        text={t(pallet.places.length > 0 ? 'pallets.complete' : 'pallets.noPlan')}
        size="strong"
      />
    );
  return (
    <Card gap={4} style={{ borderColor: surface.ink, borderWidth: 2 }}>
      <Row gap={12} style={{ justifyContent: 'space-between' }}>
        <Text kind="label" colour="quiet">
          {t('pallets.next')} · {t('pallets.position', { number: number(next + 1), all: number(pallet.places.length) })}
        </Text>
        <Text kind="strong">{t('pallets.layer', { layer: number(unit.layer), layers: number(layers) })}</Text>
      </Row>
      <Text kind="code" style={{ fontSize: 48, lineHeight: 54 }}>
        {unit.name}
      </Text>
      <Text kind="mono">{unit.sscc}</Text>
      <Text colour="quiet">{[unit.type, mass(unit.weightG), unit.customer].join(' · ')}</Text>
    </Card>
  );
}

function Drawn({ pallet, next, on }: { pallet: PalletDetail; next: number; on: number }) {
  const { t } = useTranslation();
  const [quarter, setQuarter] = useState(0);
  // One layer may be looked at with those below it; with the next unit that is over.
  const [looked, setLooked] = useState<{ layer: number; on: number } | null>(null);
  const layer = looked?.on === on ? looked.layer : null;
  const layers = Math.max(1, ...pallet.places.map((p) => p.layer));
  const [lengthMm, widthMm, highest] = pallet.type.sides;
  const top = Math.max(300, ...pallet.places.map((p) => p.at[2] + p.placed[2]));
  const room = [lengthMm, widthMm, Math.min(highest - pallet.deckMm, top)] as const;
  const shownLayer = layer ?? pallet.places[next]?.layer ?? layers;
  return (
    <Column gap={8}>
      <View style={{ alignItems: 'center' }}>
        <BoxDrawing
          inner={room}
          boxes={pallet.places.map((p) => ({ at: p.at, size: p.placed }))}
          quarter={quarter}
          label={t('pallets.drawn', { number: pallet.number, on: number(on), all: number(pallet.places.length) })}
          stateOf={(i) => {
            const place = pallet.places[i]!;
            if (layer !== null) return place.layer < layer ? 'in' : place.layer === layer ? 'next' : 'later';
            return place.on ? 'in' : i === next ? 'next' : 'later';
          }}
          {...DRAWING}
        />
      </View>
      {pallet.places.length > 0 && (
        <Row gap={8} style={{ justifyContent: 'space-between', flexWrap: 'nowrap' }}>
          <Button
            icon="chevron-left"
            label={t('pallets.layer', { layer: shownLayer - 1, layers })}
            title=""
            disabled={shownLayer <= 1}
            onPress={() => setLooked({ layer: shownLayer - 1, on })}
          />
          <Text kind="small" colour="quiet" align="center" style={{ flex: 1 }}>
            {t('pallets.layer', { layer: number(shownLayer), layers: number(layers) })}
          </Text>
          <Button
            icon="chevron-right"
            label={t('pallets.layer', { layer: shownLayer + 1, layers })}
            title=""
            disabled={shownLayer >= layers}
            onPress={() => setLooked({ layer: shownLayer + 1, on })}
          />
          <Button icon="rotate-right" label={t('bench.turn')} title="" onPress={() => setQuarter((q) => (q + 1) % 4)} />
        </Row>
      )}
      <Row gap={16} style={{ justifyContent: 'space-between' }}>
        <Text kind="figure">{mass(pallet.weightG)}</Text>
        {pallet.heightMm !== null && (
          <Text kind="figure">{t('pallets.height', { height: tall(pallet.heightMm) })}</Text>
        )}
      </Row>
      {pallet.centreMm && (
        <Text kind="small" colour="quiet">
          {t('pallets.centre', { height: tall(pallet.centreMm[2]) })}
        </Text>
      )}
    </Column>
  );
}

/** What is done with a pallet as a whole. */
function Acts({
  pallet,
  on,
  onClose,
  station,
}: {
  pallet: PalletDetail;
  on: number;
  onClose: () => void;
  station: string;
}) {
  const { t } = useTranslation();
  const router = useRouter();
  const [reopen, reopening] = api.useReopenPalletMutation();
  const [breakUp, breaking] = api.useBreakPalletMutation();
  const { id, state } = pallet;
  const error = reopening.error ?? breaking.error;
  return (
    <Column gap={8}>
      <Row gap={8}>
        {pallet.places.length > 0 && (
          <Button
            icon="file-document-outline"
            title={t('pallets.plan')}
            onPress={() => void Linking.openURL(addressOf({ name: 'palletSheet', id }))}
          />
        )}
        {state !== 'open' && <PrintKey kind="pallet-label" of={id} station={station} title={t('pallets.label')} />}
        {state === 'closed' && (
          <>
            <Button title={t('pallets.reopen')} busy={reopening.isLoading} onPress={() => void reopen(id)} />
            <Button
              title={t('pallets.break')}
              busy={breaking.isLoading}
              onPress={() => void breakUp(id).then((done) => done.data && router.navigate('/pallets'))}
            />
          </>
        )}
      </Row>
      {error && <Failed text={words(troubleOf(error))} />}
      {state === 'open' && (
        <Button
          kind={on === 0 ? 'plain' : 'act'}
          size="floor"
          title={t(on === 0 ? 'pallets.discard' : 'pallets.close')}
          onPress={onClose}
        />
      )}
    </Column>
  );
}
