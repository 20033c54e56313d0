import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View } from 'react-native';
import { makeFloor, type FloorPattern, type MadeFloor } from '@hand-relay/core/sheets';
import { api, troubleOf, words } from '../state/index.ts';
import { number } from '../text/index.ts';
import { Choice, Column, Facts, Failed, Field, FloorPlan, Key, Row, Txt, useShortcuts, WIDE } from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { JobProgress } from './JobProgress.tsx';

const beginning = {
  firstAisle: 'A',
  aisles: '6',
  bays: '16',
  levels: '4',
  bayMetres: '1.2',
  aisleMetres: '3.4',
  crossEvery: '8',
  crossMetres: '2.4',
  naming: '{aisle}-{bay}-{level}',
};
type Told = typeof beginning;
const fields = Object.keys(beginning) as (keyof Told)[];
const texts = new Set<keyof Told>(['firstAisle', 'naming']);

function made(told: Told, sides: 1 | 2, zone: string): { floor: MadeFloor; pattern: FloorPattern } | { wrong: string } {
  const of = (name: keyof Told) => Number(told[name].replace(',', '.'));
  const pattern: FloorPattern = {
    firstAisle: told.firstAisle,
    naming: told.naming,
    sides,
    zone,
    aisles: of('aisles'),
    bays: of('bays'),
    levels: of('levels'),
    bayMetres: of('bayMetres'),
    aisleMetres: of('aisleMetres'),
    crossEvery: of('crossEvery'),
    crossMetres: of('crossMetres'),
  };
  try {
    return { floor: makeFloor(pattern), pattern };
  } catch (error) {
    return { wrong: (error as RangeError).message };
  }
}

/** Makes aisles and bins of a few numbers, the plan drawn as they are typed. */
export function FloorMaker() {
  const { t } = useTranslation();
  const router = useRouter();
  const { width } = useWindowDimensions();
  const wide = width >= WIDE;
  const [told, setTold] = useState<Told>(beginning);
  const [sides, setSides] = useState<'1' | '2'>('2');
  const [chosen, setChosen] = useState<string | null>(null);
  const [job, setJob] = useState<string | null>(null);
  const { data: zones } = api.useSheetRowsQuery('zones');
  const [make, making] = api.useMakeFloorMutation();
  const names = (zones?.rows ?? []).filter((z) => z['retired'] !== true).map((z) => String(z['zone']));
  const zone = chosen ?? names[0] ?? '';
  const result = useMemo(() => made(told, sides === '1' ? 1 : 2, zone), [told, sides, zone]);
  useShortcuts({ Escape: () => router.navigate('/setup') });
  const go = async () => {
    if ('wrong' in result) return;
    const started = await make(result.pattern);
    if (started.data) setJob(started.data.job);
  };
  const bins = 'floor' in result ? result.floor.bins : [];
  return (
    <Page
      title={t('setup.makeFloor')}
      onBack={() => router.navigate('/setup')}
      foot={
        !job && (
          <Row gap={8} style={{ justifyContent: 'flex-end' }}>
            <Key
              kind="act"
              title={t('setup.makeBins', { count: bins.length })}
              disabled={'wrong' in result || zone === ''}
              busy={making.isLoading}
              onPress={() => void go()}
            />
          </Row>
        )
      }
    >
      {job ? (
        <JobProgress job={job} onDone={() => router.navigate('/setup/bins')} />
      ) : (
        <View style={{ flexDirection: wide ? 'row' : 'column', gap: 24 }}>
          <Column gap={10} style={wide ? { width: 380 } : {}}>
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10 }}>
              {fields.map((name) => (
                <View key={name} style={{ flexGrow: 1, flexBasis: name === 'naming' ? '100%' : 150 }}>
                  <Field
                    label={t(`setup.floor.${name}`)}
                    numeric={!texts.has(name)}
                    value={told[name]}
                    onChange={(value) => setTold({ ...told, [name]: value })}
                  />
                </View>
              ))}
            </View>
            <Choice
              label={t('setup.floor.sides')}
              value={sides}
              onChange={setSides}
              options={[
                { value: '1', title: t('setup.floor.one') },
                { value: '2', title: t('setup.floor.two') },
              ]}
            />
            {names.length > 0 ? (
              <Choice
                label={t('setup.sheet.zones')}
                value={zone}
                onChange={setChosen}
                options={names.map((value) => ({ value, title: value }))}
              />
            ) : (
              <Failed text={t('setup.zoneFirst')} onRetry={() => router.navigate('/setup/zones')} />
            )}
            {making.error && <Failed text={words(troubleOf(making.error))} />}
          </Column>
          <Column gap={12} style={{ flex: 1, minWidth: 0 }}>
            {'wrong' in result ? (
              <Failed text={result.wrong} />
            ) : (
              <>
                <Facts
                  facts={[
                    { name: t('setup.sheet.bins'), value: number(bins.length) },
                    { name: t('setup.floor.first'), value: String(bins[0]?.['bin'] ?? '–') },
                    { name: t('setup.floor.last'), value: String(bins.at(-1)?.['bin'] ?? '–') },
                    {
                      name: t('setup.floor.measures'),
                      value: `${number(Math.round(result.floor.floor.aisles.at(-1)!.x))} × ${number(Math.round(result.floor.floor.crossAisles.at(-1)!))} m`,
                    },
                  ]}
                />
                <View style={{ maxWidth: 560 }}>
                  <FloorPlan
                    label={t('setup.floor.picture', { count: bins.length })}
                    plan={planOf(result.floor, zone)}
                  />
                </View>
              </>
            )}
            <Txt kind="small" colour="quiet">
              {t('setup.floor.hint')}
            </Txt>
          </Column>
        </View>
      )}
    </Page>
  );
}

function planOf({ floor, bins }: MadeFloor, zone: string) {
  return {
    ...floor,
    aisles: floor.aisles.map(({ id, x }) => ({ id, x })),
    blocked: [],
    places: [],
    finish: null,
    start: { aisle: floor.aisles[0]!.id, y: 0 },
    zones: [{ code: zone, name: zone, cold: false }],
    bins: bins.map((b) => ({
      bin: String(b['bin']),
      aisle: String(b['aisle']),
      y: Number(b['y_m']) / 100,
      side: String(b['side']),
      zone,
    })),
  };
}
