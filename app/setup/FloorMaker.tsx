import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View } from 'react-native';
import { makeFloor, nextAisle, type FloorPattern, type MadeFloor } from '@hand-relay/core/reading/sheets';
import type { FloorPlan as Plan } from '@hand-relay/contract';
import { api, troubleOf, words } from '../state/index.ts';
import { number } from '../text/index.ts';
import {
  Choice,
  Column,
  Facts,
  Failed,
  Field,
  FloorPlan,
  Button,
  Labelled,
  Loading,
  Picker,
  Row,
  Text,
  useShortcuts,
  WIDE,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { JobProgress } from './JobProgress.tsx';

const beginning = {
  firstAisle: 'A',
  aisles: '6',
  startX: '',
  bays: '16',
  levels: '4',
  bayMetres: '1.2',
  aisleMetres: '3.4',
  crossEvery: '8',
  crossMetres: '2.4',
  naming: '{aisle}-{bay}-{level}',
};
type Entered = typeof beginning;
const fields = Object.keys(beginning) as (keyof Entered)[];
const texts = new Set<keyof Entered>(['firstAisle', 'naming']);
/** What a floor that is there has decided already. */
const onlyOnEmpty = new Set<keyof Entered>(['crossEvery']);

/** Where another zone begins. */
interface ZoneFrom {
  aisle: string;
  zone: string;
}

function made(
  entered: Entered,
  sides: 1 | 2,
  zone: string,
  zonesFrom: readonly ZoneFrom[],
  there: Plan,
): { floor: MadeFloor; pattern: FloorPattern } | { wrong: string } {
  const of = (name: keyof Entered) => Number(entered[name].replace(',', '.'));
  const pattern: FloorPattern = {
    firstAisle: entered.firstAisle,
    naming: entered.naming,
    sides,
    zone,
    ...(zonesFrom.length > 0 ? { zonesFrom: [...zonesFrom] } : {}),
    ...(entered.startX.trim() === '' ? {} : { startX: of('startX') }),
    aisles: of('aisles'),
    bays: of('bays'),
    levels: of('levels'),
    bayMetres: of('bayMetres'),
    aisleMetres: of('aisleMetres'),
    crossEvery: of('crossEvery'),
    crossMetres: of('crossMetres'),
  };
  try {
    return { floor: makeFloor(pattern, there, there.bins), pattern };
  } catch (error) {
    return { wrong: (error as RangeError).message };
  }
}

/** Makes aisles and bins of a few numbers beside those that are there, the plan drawn as they are typed. */
export function FloorMaker() {
  const { data: plan, error, refetch } = api.useFloorPlanQuery(undefined, { refetchOnMountOrArgChange: true });
  const { data: zones } = api.useSheetRowsQuery('zones');
  const { t } = useTranslation();
  const router = useRouter();
  if (plan && zones)
    return (
      <Maker
        plan={plan}
        zones={zones.rows
          .filter((z) => z['retired'] !== true)
          .map((z) => ({ code: String(z['zone']), name: String(z['name'] || z['zone']) }))}
      />
    );
  return (
    <Page title={t('setup.makeFloor')} onBack={() => router.navigate('/setup')}>
      {error ? <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} /> : <Loading />}
    </Page>
  );
}

function Maker({ plan, zones }: { plan: Plan; zones: { code: string; name: string }[] }) {
  const { t } = useTranslation();
  const router = useRouter();
  const { width } = useWindowDimensions();
  const wide = width >= WIDE;
  const [entered, setEntered] = useState<Entered>(() => ({ ...beginning, firstAisle: nextAisle(plan) }));
  const [sides, setSides] = useState<'1' | '2'>('2');
  // One zone is no choice; among several nobody is chosen for.
  const [zone, setZone] = useState(zones.length === 1 ? zones[0]!.code : '');
  const [zonesFrom, setZonesFrom] = useState<ZoneFrom[]>([]);
  const [job, setJob] = useState<string | null>(null);
  const [make, making] = api.useMakeFloorMutation();
  const result = useMemo(
    () => made(entered, sides === '1' ? 1 : 2, zone, zonesFrom, plan),
    [entered, sides, zone, zonesFrom, plan],
  );
  const zoned = zone !== '' && zonesFrom.every((z) => z.zone !== '');
  useShortcuts({ Escape: () => router.navigate('/setup') });
  const go = async () => {
    if ('wrong' in result) return;
    const started = await make(result.pattern);
    if (started.data) setJob(started.data.job);
  };
  const bins = 'floor' in result ? result.floor.bins : [];
  const aisles = 'floor' in result ? result.floor.floor.aisles.map((a) => a.id) : [];
  const empty = plan.aisles.length === 0;
  const shown = fields.filter((name) => (empty ? name !== 'startX' : !onlyOnEmpty.has(name)));
  return (
    <Page
      title={t('setup.makeFloor')}
      onBack={() => router.navigate('/setup')}
      foot={
        !job && (
          <Row gap={8} style={{ justifyContent: 'flex-end' }}>
            <Button
              kind="act"
              title={t('setup.makeBins', { count: bins.length })}
              disabled={'wrong' in result || !zoned}
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
              {shown.map((name) => (
                <View key={name} style={{ flexGrow: 1, flexBasis: name === 'naming' ? '100%' : 150 }}>
                  <Field
                    label={t(`setup.floor.${name}`)}
                    numeric={!texts.has(name)}
                    {...(name === 'startX' ? { placeholder: t('setup.floor.behind') } : {})}
                    value={entered[name]}
                    onChange={(value) => setEntered({ ...entered, [name]: value })}
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
            {zones.length > 0 ? (
              <ZonesOfAisles {...{ zones, zone, setZone, zonesFrom, setZonesFrom, aisles }} />
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
                      value: `${number(Math.round(lengthOf(together(plan, result.floor).aisles.map((a) => a.x))))} × ${number(Math.round(lengthOf(result.floor.floor.crossAisles)))} m`,
                    },
                  ]}
                />
                <View style={{ maxWidth: 560 }}>
                  <FloorPlan
                    label={t('setup.floor.picture', { count: bins.length })}
                    plan={together(plan, result.floor)}
                    fresh={new Set(bins.map((b) => String(b['bin'])))}
                  />
                </View>
              </>
            )}
            <Text kind="small" colour="quiet">
              {t('setup.floor.hint')}
            </Text>
          </Column>
        </View>
      )}
    </Page>
  );
}

const NONE = '';

/** The zone of the first new aisle, and where others begin. */
function ZonesOfAisles({
  zones,
  zone,
  setZone,
  zonesFrom,
  setZonesFrom,
  aisles,
}: {
  zones: { code: string; name: string }[];
  zone: string;
  setZone: (zone: string) => void;
  zonesFrom: ZoneFrom[];
  setZonesFrom: (zones: ZoneFrom[]) => void;
  aisles: string[];
}) {
  const { t } = useTranslation();
  const options = (chosen: string) => [
    ...(chosen === NONE ? [{ value: NONE, title: t('setup.floor.chooseZone') }] : []),
    ...zones.map((z) => ({ value: z.code, title: z.name })),
  ];
  const rest = aisles.slice(1).filter((a) => !zonesFrom.some((z) => z.aisle === a));
  const put = (at: number, next: Partial<ZoneFrom>) =>
    setZonesFrom(zonesFrom.map((z, i) => (i === at ? { ...z, ...next } : z)));
  return (
    <Column gap={8}>
      <Labelled label={t(zonesFrom.length > 0 ? 'setup.floor.zoneFrom' : 'setup.floor.zone', { aisle: aisles[0] })}>
        <Picker label={t('setup.floor.zone')} value={zone} onChange={setZone} options={options(zone)} />
      </Labelled>
      {zonesFrom.map((z, i) => (
        <Row key={i} gap={8} style={{ flexWrap: 'nowrap', alignItems: 'flex-end' }}>
          <Labelled label={t('setup.floor.fromAisle')}>
            <Picker
              label={t('setup.floor.fromAisle')}
              value={z.aisle}
              onChange={(aisle) => put(i, { aisle })}
              options={[z.aisle, ...rest].map((value) => ({ value, title: value }))}
            />
          </Labelled>
          <Labelled label={t('setup.floor.zone')}>
            <Picker
              label={t('setup.floor.zoneFrom', { aisle: z.aisle })}
              value={z.zone}
              onChange={(next) => put(i, { zone: next })}
              options={options(z.zone)}
            />
          </Labelled>
          <Button
            size="small"
            title={t('setup.floor.removeZone')}
            onPress={() => setZonesFrom(zonesFrom.filter((_, at) => at !== i))}
          />
        </Row>
      ))}
      {rest.length > 0 && zones.length > 1 && (
        <Row>
          <Button
            size="small"
            title={t('setup.floor.anotherZone')}
            onPress={() => setZonesFrom([...zonesFrom, { aisle: rest[Math.floor(rest.length / 2)]!, zone: NONE }])}
          />
        </Row>
      )}
    </Column>
  );
}

const lengthOf = (metres: readonly number[]) => Math.max(...metres) - Math.min(...metres);

/** The floor as it will be: what is there, and what is made. */
function together(there: Plan, { floor, bins }: MadeFloor): Plan {
  const own = new Set(there.aisles.map((a) => a.id));
  const known = new Set(there.bins.map((b) => b.bin));
  return {
    ...there,
    aisles: [...there.aisles, ...floor.aisles.filter((a) => !own.has(a.id)).map(({ id, x }) => ({ id, x }))],
    crossAisles: floor.crossAisles,
    start: there.aisles.length > 0 ? there.start : { aisle: floor.aisles[0]!.id, y: floor.crossAisles[0]! },
    bins: [
      ...there.bins,
      ...bins
        .filter((b) => !known.has(String(b['bin'])))
        .map((b) => ({
          bin: String(b['bin']),
          aisle: String(b['aisle']),
          y: Number(b['y_m']) / 100,
          side: String(b['side']),
          zone: String(b['zone']),
        })),
    ],
  };
}
