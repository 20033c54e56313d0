import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { LoadDetail, LoadShare } from '@hand-relay/contract';
import { ListExport } from '../desk/index.ts';
import { Button, Column, Row, Text, useSurface } from '../ui/index.ts';
import { byPostcode, movedStop, stopsIn } from './stops.ts';
import { ShareRow } from './ShareRow.tsx';

/** What goes into a load, by its stops in the order in which they are delivered. */
export function LoadInside({
  load,
  may,
  busy,
  onOut,
  onStops,
}: {
  load: LoadDetail;
  may: boolean;
  busy: boolean;
  onOut: (share: LoadShare) => void;
  onStops: (stops: number[]) => void;
}) {
  const { t } = useTranslation();
  const surface = useSurface();
  const stops = stopsIn(load.shares);
  return (
    <Column gap={4}>
      <Row gap={12} style={{ justifyContent: 'space-between' }}>
        <Text kind="heading" level={2}>
          {t('loads.inside')}
        </Text>
        <Row gap={8}>
          {may && stops.length > 2 && (
            <Button
              size="small"
              title={t('loads.byPostcode')}
              busy={busy}
              onPress={() => onStops(byPostcode(load.shares))}
            />
          )}
          {load.shares.length > 0 && (
            <ListExport
              name={`load-${load.number}`}
              rows={() =>
                load.shares.map((s) => ({
                  stop: s.stop ?? '',
                  order: s.number,
                  customer: s.customer,
                  street: s.street,
                  postcode: s.postcode,
                  city: s.city,
                  country: s.country,
                  due: s.due,
                  units: s.units,
                  released: s.released,
                  picked: s.picked,
                  packed: s.packed,
                  weight_g: s.weightG,
                  volume_cm3: Math.round(s.volumeCm3),
                  pallets: Math.round(s.pallets * 100) / 100,
                }))
              }
            />
          )}
        </Row>
      </Row>
      {load.shares.length === 0 && (
        <Text colour="quiet">{t(load.left.length > 0 ? 'loads.allLeft' : 'loads.nothingInside')}</Text>
      )}
      <View role="list" aria-label={t('loads.inside')}>
        {stops.map(({ stop, at, shares }) => (
          <View key={stop} role="group" aria-label={t('loads.stop', { stop, at })}>
            {stops.length > 1 && (
              <View
                style={{
                  flexDirection: 'row',
                  alignItems: 'center',
                  gap: 8,
                  minHeight: 44,
                  backgroundColor: surface.sunk,
                  paddingHorizontal: 8,
                }}
              >
                <Text kind="strong" style={{ flex: 1, minWidth: 0 }} lines={1}>
                  {t('loads.stop', { stop, at })}
                </Text>
                {may && (
                  <>
                    <Button
                      size="small"
                      icon="arrow-up"
                      iconOnly
                      title={t('loads.sooner', { stop })}
                      disabled={stop === 1 || busy}
                      onPress={() => onStops(movedStop(stops.length, stop, -1))}
                    />
                    <Button
                      size="small"
                      icon="arrow-down"
                      iconOnly
                      title={t('loads.later', { stop })}
                      disabled={stop === stops.length || busy}
                      onPress={() => onStops(movedStop(stops.length, stop, 1))}
                    />
                  </>
                )}
              </View>
            )}
            {shares.map((share) => (
              <ShareRow key={share.id} share={share} inside>
                {may && (
                  <Button
                    size="small"
                    icon="close"
                    iconOnly
                    title={t('loads.takeOut', { number: share.number })}
                    onPress={() => onOut(share)}
                  />
                )}
              </ShareRow>
            ))}
          </View>
        ))}
      </View>
    </Column>
  );
}
