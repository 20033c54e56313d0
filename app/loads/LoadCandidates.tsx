import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Pressable, View } from 'react-native';
import { api, troubleOf, words } from '../state/index.ts';
import { mass } from '../text/index.ts';
import { Button, Column, Empty, Failed, Field, Loading, Row, Text, useSurface } from '../ui/index.ts';
import { areaKey, areasIn, type Area } from './stops.ts';
import { ShareRow } from './ShareRow.tsx';

const SHOWN = 100;

/** What could go into a load: by where it goes to, by a text, what fits first in the order in which it leaves. */
export function LoadCandidates({
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
  const [areas, setAreas] = useState<string[]>([]);
  const wanted = find.trim().toLowerCase();
  const all = data?.shares ?? [];
  const shown = all
    .filter((s) => !wanted || `${s.number} ${s.customer} ${s.postcode} ${s.city}`.toLowerCase().includes(wanted))
    .filter((s) => areas.length === 0 || areas.includes(areaKey(s)))
    .sort((a, b) => Number(b.fits) - Number(a.fits));
  return (
    <Column gap={8}>
      <Row gap={12} style={{ justifyContent: 'space-between' }}>
        <Text kind="heading" level={2}>
          {t('loads.candidates')}
        </Text>
        <Button
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
      <Areas
        areas={areasIn(all)}
        chosen={areas}
        onChoose={(key) => setAreas(areas.includes(key) ? areas.filter((a) => a !== key) : [...areas, key])}
      />
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading rows={4} />}
      {data && shown.length === 0 && <Empty title={t('loads.noneTitle')} text={t('loads.noneText')} />}
      <View role="list" aria-label={t('loads.candidates')}>
        {shown.slice(0, SHOWN).map((share) => (
          <ShareRow key={share.id} share={share}>
            <Button
              size="small"
              title={t('loads.putIn')}
              label={t('loads.putInNumber', { number: share.number })}
              onPress={() => onIn([share.id], false)}
            />
          </ShareRow>
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

const TILE = 108;

/**
 * Where candidates go to: a tile for each district of postcodes, in their order, as wide as its share of the weight. What
 * is chosen is what the list shows and what "Fill load" takes.
 */
function Areas({ areas, chosen, onChoose }: { areas: Area[]; chosen: string[]; onChoose: (key: string) => void }) {
  const { t } = useTranslation();
  const surface = useSurface();
  if (areas.length < 2) return null;
  const sum = areas.reduce((n, a) => n + a.weightG, 0) || 1;
  return (
    <View role="group" aria-label={t('loads.areas')} style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 4 }}>
      {areas.map((area) => {
        const on = chosen.includes(area.key);
        return (
          <Pressable
            key={area.key}
            role="button"
            aria-pressed={on}
            aria-label={t('loads.areaLabel', {
              area: area.name,
              cities: area.cities.join(', '),
              orders: t('unit.orders', { count: area.orders }),
            })}
            onPress={() => onChoose(area.key)}
            style={{
              flexGrow: area.weightG / sum,
              flexBasis: TILE,
              minHeight: 60,
              paddingHorizontal: 8,
              paddingVertical: 6,
              borderWidth: on ? 2 : 1,
              borderRadius: 4,
              borderColor: on ? surface.ink : surface.line,
              backgroundColor: on ? surface.sunk : surface.raised,
            }}
          >
            <View style={{ flexDirection: 'row', justifyContent: 'space-between', gap: 8 }}>
              <Text kind="strong">{area.name}</Text>
              <Text kind="number">{area.orders}</Text>
            </View>
            <Text kind="small" colour="quiet" lines={1}>
              {area.cities.join(', ')}
            </Text>
            <Text kind="small" colour={area.fits > 0 ? 'quiet' : 'caution'} lines={1}>
              {mass(area.weightG)}
            </Text>
          </Pressable>
        );
      })}
    </View>
  );
}
