import { useRouter } from 'expo-router';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import {
  checkOrders,
  checks,
  countings,
  drops,
  lookAlikeWays,
  reserveTimes,
  setUps,
  stagings,
  touchRules,
  type PickWay,
  type Way,
} from '@hand-relay/core/ways';
import { api, tell, troubleOf, useMe, useSend, words } from '../state/index.ts';
import {
  Card,
  Choice,
  Column,
  Failed,
  Field,
  Key,
  Loading,
  play,
  Row,
  Signal,
  Tick,
  Txt,
  useShortcuts,
} from '../ui/index.ts';
import { i18n } from '../text/index.ts';
import { Page } from '../shell/index.ts';
import { BinRules } from './BinRules.tsx';
import { Walked } from './Walked.tsx';
import { scansOf } from './example.ts';

/** How this site works: each choice in plain words, with what it changes beside it. */
export function WayView() {
  const { t } = useTranslation();
  const router = useRouter();
  const { data, error, refetch } = api.useWayQuery();
  /** What a save just now replaced, to go back to. */
  const [before, setBefore] = useState<Way | null>(null);
  useShortcuts({ Escape: () => router.navigate('/setup') });
  return (
    <Page title={t('way.title')} onBack={() => router.navigate('/setup')}>
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading />}
      {data && (
        <Form key={JSON.stringify(data.way)} way={data.way} waves={data.waves} before={before} onSaved={setBefore} />
      )}
    </Page>
  );
}

/** What was changed and not saved when the page was left, with who changed it and the settings that it started from. */
let draft: { from: string; next: Way } | null = null;

const changed = (a: unknown, b: unknown) => JSON.stringify(a) !== JSON.stringify(b);

function Form({
  way,
  waves,
  before,
  onSaved,
}: {
  way: Way;
  waves: number;
  before: Way | null;
  onSaved: (before: Way | null) => void;
}) {
  const { t } = useTranslation();
  const router = useRouter();
  const send = useSend();
  // Somebody else on this device, or at another site, begins with what is saved.
  const me = useMe();
  const from = `${me.person.id} ${me.site.id} ${JSON.stringify(way)}`;
  const [next, setNext] = useState(() => (draft?.from === from ? draft.next : way));
  const [save, { error, isLoading }] = api.useChangeWayMutation();
  const { data: places } = api.useSheetRowsQuery('places');
  // One that is gone stays to be seen until another is chosen.
  const lanes = [
    ...new Set([
      ...(places?.rows ?? [])
        .filter((r) => r['retired'] !== true && r['kind'] === 'lane')
        .map((r) => String(r['place'])),
      ...(way.expressLane ? [way.expressLane] : []),
    ]),
  ];
  const set = (part: Partial<Way>) => setNext({ ...next, ...part });
  /** As it is typed: a comma at the end is the beginning of the next. */
  const [work, setWork] = useState(way.otherWork.join(', '));
  const differing = (Object.keys(next) as (keyof Way)[]).filter((k) => changed(next[k], way[k]));
  const unsaved = useRef(0);
  const saved = useRef('');
  useEffect(() => {
    // Saved, and only not read again yet: nothing is open.
    const open = saved.current !== JSON.stringify(next) && differing.length > 0;
    unsaved.current = open ? differing.length : 0;
    draft = open ? { from, next } : null;
    if (!open) return undefined;
    const stay = (event: BeforeUnloadEvent) => event.preventDefault();
    addEventListener('beforeunload', stay);
    return () => removeEventListener('beforeunload', stay);
  });
  useEffect(
    () => () => {
      // Nothing is lost: the page has it still when it is opened again.
      if (unsaved.current > 0)
        send(
          tell({
            kind: 'caution',
            text: i18n.t('way.unsaved', { count: unsaved.current }),
            link: '/setup/way',
            about: 'way',
          }),
        );
    },
    [send],
  );
  const go = async (wanted: Way, replaced: Way | null) => {
    const done = await save(wanted);
    if (!done.data) return;
    saved.current = JSON.stringify(wanted);
    unsaved.current = 0;
    draft = null;
    onSaved(replaced);
    send(tell({ kind: 'done', text: t(replaced ? 'way.saved' : 'way.back') }));
  };
  const choice = <K extends 'stages' | 'reserve' | 'label' | 'paper' | 'units'>(
    name: K,
    options: readonly Way[K][],
  ) => (
    <Choice
      label={t(`way.${name}.title`)}
      bare
      value={next[name]}
      onChange={(value) => set({ [name]: value })}
      options={options.map((value) => ({ value, title: t(`way.${name}.${value}`) }))}
    />
  );
  return (
    <View style={{ maxWidth: 900, gap: 16 }}>
      <Part title={t('way.stages.title')}>
        {choice('stages', stagings)}
        <Txt colour="quiet">{t(`way.stages.about.${next.stages}`)}</Txt>
      </Part>
      <Part title={t('way.reserve.title')}>
        {choice('reserve', reserveTimes)}
        <Txt colour="quiet">{t(`way.reserve.about.${next.reserve}`)}</Txt>
        {next.reserve === 'scan' && (
          <Tick
            shown
            label={t('way.countReleased')}
            checked={next.countReleased}
            onPress={() => set({ countReleased: !next.countReleased })}
          />
        )}
      </Part>
      <Part title={t('way.picking.title')}>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 24 }}>
          {(['one', 'many'] as const).map((kind) => (
            <Picking
              key={kind}
              title={t(`way.picking.${kind}`)}
              way={next.picking[kind]}
              onChange={(picking) => set({ picking: { ...next.picking, [kind]: picking } })}
            />
          ))}
        </View>
        <Choice
          label={t('way.setUp.title')}
          value={next.setUp}
          onChange={(setUp) => set({ setUp })}
          options={setUps.map((value) => ({ value, title: t(`way.setUp.${value}`) }))}
        />
        {next.setUp === 'confirm' && <Txt colour="quiet">{t('way.setUp.about')}</Txt>}
        <Txt kind="strong">{t('way.touch.title')}</Txt>
        {checks.map((check) => (
          <Row key={check} gap={8}>
            <Txt colour="quiet" style={{ width: 120 }}>
              {t(`way.touch.${check}`)}
            </Txt>
            <Choice
              bare
              label={t(`way.touch.${check}`)}
              value={next.touch[check]}
              onChange={(rule) => set({ touch: { ...next.touch, [check]: rule } })}
              options={touchRules.map((value) => ({ value, title: t(`way.touch.${value}`) }))}
            />
          </Row>
        ))}
        <Txt colour="quiet">{t('way.touch.about')}</Txt>
        <Choice
          label={t('way.lookAlikes.title')}
          value={next.lookAlikes}
          onChange={(lookAlikes) => set({ lookAlikes })}
          options={lookAlikeWays.map((value) => ({ value, title: t(`way.lookAlikes.${value}`) }))}
        />
        <Txt colour="quiet">{t('way.lookAlikes.about')}</Txt>
        <Tick
          shown
          label={t('way.lotSwaps')}
          checked={next.lotSwaps}
          onPress={() => set({ lotSwaps: !next.lotSwaps })}
        />
        <Txt colour="quiet">{t(next.lotSwaps ? 'way.lotSwapsYes' : 'way.lotSwapsNo')}</Txt>
        <Tick
          shown
          label={t('way.otherBins')}
          checked={next.otherBins}
          onPress={() => set({ otherBins: !next.otherBins })}
        />
        <Txt colour="quiet">{t(next.otherBins ? 'way.otherBinsYes' : 'way.otherBinsNo')}</Txt>
        <View style={{ maxWidth: 320 }}>
          <Field
            label={t('way.nearlyEmpty')}
            numeric
            value={next.nearlyEmpty < 0 ? '' : String(next.nearlyEmpty)}
            onChange={(v) => set({ nearlyEmpty: v.trim() === '' ? -1 : Math.min(99, Number(v.replace(/\D/g, ''))) })}
          />
        </View>
        <Txt colour="quiet">{t('way.nearlyEmptyAbout')}</Txt>
        <View style={{ maxWidth: 320 }}>
          <Field
            label={t('way.countLimit')}
            numeric
            value={String(next.countLimit)}
            onChange={(v) => set({ countLimit: Math.min(9999, Number(v.replace(/\D/g, ''))) })}
          />
        </View>
        <Txt colour="quiet">{t('way.countLimitAbout')}</Txt>
        <Choice
          label={t('way.expressLane')}
          value={next.expressLane}
          onChange={(expressLane) => set({ expressLane })}
          options={[
            { value: '', title: t('way.noExpressLane') },
            ...lanes.map((lane) => ({ value: lane, title: lane })),
          ]}
        />
        <Txt colour="quiet">{t('way.expressLaneAbout')}</Txt>
        <Field
          label={t('way.otherWork')}
          value={work}
          onChange={(text) => {
            setWork(text);
            set({ otherWork: [...new Set(text.split(',').map((w) => w.trim()))].filter(Boolean) });
          }}
        />
        <Txt colour="quiet">{t('way.otherWorkAbout')}</Txt>
      </Part>
      <Part title={t('way.bins.title')}>
        <BinRules rules={next.bins} onChange={(bins) => set({ bins })} />
      </Part>
      <Part title={t('way.carry.title')}>
        {(['heavyFirst', 'chilledLast', 'highTogether'] as const).map((name) => (
          <Tick
            key={name}
            shown
            label={t(`way.carry.${name}`)}
            checked={next.carry[name]}
            onPress={() => set({ carry: { ...next.carry, [name]: !next.carry[name] } })}
          />
        ))}
        <Txt colour="quiet">{t('way.carry.about')}</Txt>
      </Part>
      <Part title={t('way.walking.title')}>
        <Walked walking={next.walking} onChange={(walking) => set({ walking })} />
        <Tick
          shown
          label={t('way.ownTrips')}
          checked={next.ownTrips}
          onPress={() => set({ ownTrips: !next.ownTrips })}
        />
      </Part>
      <Part title={t('way.sounds.title')}>
        {(['accepted', 'refused', 'finished'] as const).map((sound) => (
          <Row key={sound} gap={8}>
            <View style={{ width: 180 }}>
              <Tick
                shown
                label={t(`way.sounds.${sound}`)}
                checked={next.sounds[sound]}
                onPress={() => set({ sounds: { ...next.sounds, [sound]: !next.sounds[sound] } })}
              />
            </View>
            <Key
              size="small"
              icon="volume-high"
              title={t('way.hear')}
              label={`${t('way.hear')}: ${t(`way.sounds.${sound}`)}`}
              onPress={() => play(sound)}
            />
          </Row>
        ))}
      </Part>
      <Part title={t('way.printing')}>
        <Row gap={12}>
          <Txt colour="quiet">{t('way.label.title')}</Txt>
          {choice('label', ['4x6', 'a6'])}
        </Row>
        <Row gap={12}>
          <Txt colour="quiet">{t('way.paper.title')}</Txt>
          {choice('paper', ['a4', 'letter'])}
        </Row>
      </Part>
      <Part title={t('way.units.title')}>
        {choice('units', ['metric', 'imperial'])}
        <Txt colour="quiet">{t('way.unitsKept')}</Txt>
      </Part>
      <Part title={t('way.elsewhere')}>
        <Row>
          {(['roles', 'places', 'printers'] as const).map((sheet) => (
            <Key key={sheet} title={t(`setup.sheet.${sheet}`)} onPress={() => router.navigate(`/setup/${sheet}`)} />
          ))}
        </Row>
      </Part>
      {waves > 0 && differing.length > 0 && (
        <Signal kind="caution" text={t('way.underWay', { count: waves })} size="body" />
      )}
      {error && <Failed text={words(troubleOf(error))} />}
      <Row>
        <Key
          kind="act"
          title={differing.length === 0 ? t('setup.save') : t('way.save', { count: differing.length })}
          busy={isLoading}
          disabled={differing.length === 0}
          onPress={() => void go(next, way)}
        />
        {before && differing.length === 0 && (
          <Key icon="undo" title={t('way.takeBack')} onPress={() => void go(before, null)} />
        )}
        {differing.length > 0 && (
          <Key
            title={t('way.asItWas')}
            onPress={() => {
              setNext(way);
              setWork(way.otherWork.join(', '));
            }}
          />
        )}
      </Row>
    </View>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Card gap={10}>
      <Txt kind="heading" level={2}>
        {title}
      </Txt>
      {children}
    </Card>
  );
}

/** One way of picking, and below it what a picker will be asked, worked out by the judge of the scans itself. */
function Picking({ title, way, onChange }: { title: string; way: PickWay; onChange: (way: PickWay) => void }) {
  const { t } = useTranslation();
  const asks = scansOf(way);
  const both = way.checks.includes('bin') && way.checks.includes('item');
  return (
    <View role="group" aria-label={title} style={{ flexGrow: 1, flexBasis: 340, gap: 8 }}>
      <Txt kind="strong">{title}</Txt>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        {checks.map((check) => (
          <Tick
            key={check}
            shown
            label={t(`way.check.${check === 'position' && way.drop === 'carton' ? 'carton' : check}`)}
            checked={way.checks.includes(check)}
            onPress={() =>
              onChange({
                ...way,
                checks: checks.filter((c) => (c === check ? !way.checks.includes(c) : way.checks.includes(c))),
              })
            }
          />
        ))}
      </View>
      {both && (
        <Choice
          label={t('way.order.title')}
          value={way.order}
          onChange={(order) => onChange({ ...way, order })}
          options={checkOrders.map((value) => ({ value, title: t(`way.order.${value}`) }))}
        />
      )}
      <Choice
        label={t('way.counting.title')}
        value={way.counting}
        onChange={(counting) => onChange({ ...way, counting })}
        options={countings.map((value) => ({ value, title: t(`way.counting.${value}`) }))}
      />
      <Choice
        label={t('way.drop.title')}
        value={way.drop}
        onChange={(drop) => onChange({ ...way, drop })}
        options={drops.map((value) => ({ value, title: t(`way.drop.${value}`) }))}
      />
      {way.drop === 'carton' && <Txt colour="quiet">{t('way.drop.about')}</Txt>}
      <Column gap={2}>
        <Txt kind="small" colour="quiet">
          {t('way.example')}
        </Txt>
        {asks.map((ask, i) => (
          <Txt key={ask} kind="small">{`${i + 1}  ${ask}`}</Txt>
        ))}
        {!way.checks.includes('item') && <Signal kind="caution" text={t('way.noItem')} />}
      </Column>
    </View>
  );
}
