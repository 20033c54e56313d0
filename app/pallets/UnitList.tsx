import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { PalletDetail } from '@hand-relay/contract';
import { api, troubleOf, words } from '../state/index.ts';
import { mass, number } from '../text/index.ts';
import { Button, Card, Failed, Row, Shape, Text, useSurface } from '../ui/index.ts';

type Unit = PalletDetail['besides'][number];

/** Units of a pallet: as planned, layer by layer in building order, then what was put on besides. */
export function UnitList({ pallet }: { pallet: PalletDetail }) {
  const { t } = useTranslation();
  const [takeOff, { error }] = api.useTakeOffMutation();
  const layers = [...new Set(pallet.places.map((p) => p.layer))];
  const off = pallet.state === 'open' ? (unit: string) => void takeOff({ id: pallet.id, unit }) : undefined;
  if (pallet.places.length + pallet.besides.length === 0) return null;
  return (
    <Card gap={0} pad={0}>
      {error && <Failed text={words(troubleOf(error))} />}
      {layers.map((layer) => (
        <View key={layer}>
          <Head text={t('pallets.layer', { layer: number(layer), layers: number(layers.length) })} />
          {pallet.places.map((unit, i) =>
            unit.layer === layer ? (
              <UnitRow key={unit.id} unit={unit} place={i + 1} on={unit.on} onTakeOff={unit.on ? off : undefined} />
            ) : null,
          )}
        </View>
      ))}
      {pallet.besides.length > 0 && pallet.places.length > 0 && <Head text={t('pallets.besides')} />}
      {pallet.besides.map((unit) => (
        <UnitRow key={unit.id} unit={unit} on onTakeOff={off} />
      ))}
    </Card>
  );
}

const Head = ({ text }: { text: string }) => (
  <Text kind="label" colour="quiet" style={{ paddingHorizontal: 12, paddingTop: 10, paddingBottom: 4 }}>
    {text}
  </Text>
);

function UnitRow({
  unit,
  place,
  on,
  onTakeOff,
}: {
  unit: Unit;
  place?: number;
  on: boolean;
  onTakeOff: ((unit: string) => void) | undefined;
}) {
  const { t } = useTranslation();
  const surface = useSurface();
  return (
    <Row
      gap={12}
      style={{
        borderTopWidth: 1,
        borderColor: surface.line,
        paddingHorizontal: 12,
        paddingVertical: 4,
        minHeight: 52,
        flexWrap: 'nowrap',
      }}
    >
      <Text kind="number" style={{ minWidth: 28 }}>
        {place === undefined ? '' : number(place)}
      </Text>
      <View style={{ width: 18 }}>{on && <Shape kind="done" size={14} />}</View>
      <View style={{ flex: 1, minWidth: 0 }}>
        <Text kind="strong" lines={1}>
          {unit.name}
        </Text>
        <Text kind="small" colour="quiet" lines={1}>
          {[unit.sscc.slice(-5), unit.type, unit.customer].filter(Boolean).join(' · ')}
        </Text>
      </View>
      <Text kind="number">{mass(unit.weightG)}</Text>
      {onTakeOff && (
        <Button
          size="small"
          title={t('pallets.takeOff')}
          label={t('pallets.takeOffOf', { name: unit.name })}
          onPress={() => onTakeOff(unit.id)}
        />
      )}
    </Row>
  );
}
