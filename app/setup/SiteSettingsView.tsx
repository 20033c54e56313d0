import { useRouter } from 'expo-router';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import {
  checkOrders,
  checks,
  countings,
  drops,
  lookAlikeModes,
  reserveTimes,
  setUps,
  stagings,
  touchRules,
  type PickSettings,
  type SiteSettings,
} from '@hand-relay/core/deciding/settings';
import { api, notify, troubleOf, useMe, useAppDispatch, words } from '../state/index.ts';
import {
  Card,
  Choice,
  Column,
  Failed,
  Field,
  Button,
  Loading,
  play,
  Row,
  Signal,
  Checkbox,
  Picker,
  Text,
  useShortcuts,
} from '../ui/index.ts';
import { i18n } from '../text/index.ts';
import { Page } from '../shell/index.ts';
import { BinRules } from './BinRules.tsx';
import { PackingSettings } from './PackingSettings.tsx';
import { Walked } from './Walked.tsx';
import { scansOf } from './example.ts';

/** How this site works: each choice in plain words, with what it changes beside it. */
export function WayView() {
  const { t } = useTranslation();
  const router = useRouter();
  const { data, error, refetch } = api.useSiteSettingsQuery();
  /** What a save just now replaced, to go back to. */
  const [before, setBefore] = useState<SiteSettings | null>(null);
  useShortcuts({ Escape: () => router.navigate('/setup') });
  return (
    <Page title={t('settings.title')} onBack={() => router.navigate('/setup')}>
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading />}
      {data && (
        <Form
          key={JSON.stringify(data.settings)}
          settings={data.settings}
          waves={data.waves}
          before={before}
          onSaved={setBefore}
        />
      )}
    </Page>
  );
}

/** What was changed and not saved when the page was left, with who changed it and the settings that it started from. */
let draft: { from: string; next: SiteSettings } | null = null;

const changed = (a: unknown, b: unknown) => JSON.stringify(a) !== JSON.stringify(b);

function Form({
  settings,
  waves,
  before,
  onSaved,
}: {
  settings: SiteSettings;
  waves: number;
  before: SiteSettings | null;
  onSaved: (before: SiteSettings | null) => void;
}) {
  const { t } = useTranslation();
  const router = useRouter();
  const send = useAppDispatch();
  // Somebody else on this device, or at another site, begins with what is saved.
  const me = useMe();
  const from = `${me.person.id} ${me.site.id} ${JSON.stringify(settings)}`;
  const [next, setNext] = useState(() => (draft?.from === from ? draft.next : settings));
  const [save, { error, isLoading }] = api.useChangeSiteSettingsMutation();
  const { data: places } = api.useSheetRowsQuery('places');
  const { data: printerRows } = api.useSheetRowsQuery('printers');
  // One that is gone stays to be seen until another is chosen.
  const lanes = [
    ...new Set([
      ...(places?.rows ?? [])
        .filter((r) => r['retired'] !== true && r['kind'] === 'lane')
        .map((r) => String(r['place'])),
      ...(settings.expressLane ? [settings.expressLane] : []),
    ]),
  ];
  const printers = [
    ...new Set([
      ...(printerRows?.rows ?? []).filter((r) => r['retired'] !== true).map((r) => String(r['printer'])),
      ...(settings.atStart.printer ? [settings.atStart.printer] : []),
    ]),
  ];
  const set = (part: Partial<SiteSettings>) => setNext({ ...next, ...part });
  /** As it is typed: a comma at the end is the beginning of the next. */
  const [work, setWork] = useState(settings.otherWork.join(', '));
  const differing = (Object.keys(next) as (keyof SiteSettings)[]).filter((k) => changed(next[k], settings[k]));
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
          notify({
            kind: 'caution',
            text: i18n.t('settings.unsaved', { count: unsaved.current }),
            link: '/setup/settings',
            about: 'settings',
          }),
        );
    },
    [send],
  );
  const go = async (wanted: SiteSettings, replaced: SiteSettings | null) => {
    const done = await save(wanted);
    if (!done.data) return;
    saved.current = JSON.stringify(wanted);
    unsaved.current = 0;
    draft = null;
    onSaved(replaced);
    send(notify({ kind: 'done', text: t(replaced ? 'settings.saved' : 'settings.back') }));
  };
  const choice = <K extends 'stages' | 'reserve' | 'weighing' | 'label' | 'paper' | 'units'>(
    name: K,
    options: readonly SiteSettings[K][],
  ) => (
    <Choice
      label={t(`settings.${name}.title`)}
      bare
      value={next[name]}
      onChange={(value) => set({ [name]: value })}
      options={options.map((value) => ({ value, title: t(`settings.${name}.${value}`) }))}
    />
  );
  return (
    <View style={{ maxWidth: 900, gap: 16 }}>
      <Part title={t('settings.stages.title')}>
        {choice('stages', stagings)}
        <Text colour="quiet">{t(`settings.stages.about.${next.stages}`)}</Text>
      </Part>
      <Part title={t('settings.reserve.title')}>
        {choice('reserve', reserveTimes)}
        <Text colour="quiet">{t(`settings.reserve.about.${next.reserve}`)}</Text>
        {next.reserve === 'scan' && (
          <Checkbox
            shown
            label={t('settings.countReleased')}
            checked={next.countReleased}
            onPress={() => set({ countReleased: !next.countReleased })}
          />
        )}
      </Part>
      <Part title={t('settings.picking.title')}>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 24 }}>
          {(['one', 'many'] as const).map((kind) => (
            <Picking
              key={kind}
              title={t(`settings.picking.${kind}`)}
              settings={next.picking[kind]}
              onChange={(picking) => set({ picking: { ...next.picking, [kind]: picking } })}
            />
          ))}
        </View>
        <Choice
          label={t('settings.setUp.title')}
          value={next.setUp}
          onChange={(setUp) => set({ setUp })}
          options={setUps.map((value) => ({ value, title: t(`settings.setUp.${value}`) }))}
        />
        {next.setUp === 'confirm' && <Text colour="quiet">{t('settings.setUp.about')}</Text>}
        <Text kind="strong">{t('settings.touch.title')}</Text>
        {checks.map((check) => (
          <Row key={check} gap={8}>
            <Text colour="quiet" style={{ width: 120 }}>
              {t(`settings.touch.${check}`)}
            </Text>
            <Choice
              bare
              label={t(`settings.touch.${check}`)}
              value={next.touch[check]}
              onChange={(rule) => set({ touch: { ...next.touch, [check]: rule } })}
              options={touchRules.map((value) => ({ value, title: t(`settings.touch.${value}`) }))}
            />
          </Row>
        ))}
        <Text colour="quiet">{t('settings.touch.about')}</Text>
        <Choice
          label={t('settings.lookAlikes.title')}
          value={next.lookAlikes}
          onChange={(lookAlikes) => set({ lookAlikes })}
          options={lookAlikeModes.map((value) => ({ value, title: t(`settings.lookAlikes.${value}`) }))}
        />
        <Text colour="quiet">{t('settings.lookAlikes.about')}</Text>
        <Checkbox
          shown
          label={t('settings.lotSwaps')}
          checked={next.lotSwaps}
          onPress={() => set({ lotSwaps: !next.lotSwaps })}
        />
        <Text colour="quiet">{t(next.lotSwaps ? 'settings.lotSwapsYes' : 'settings.lotSwapsNo')}</Text>
        <Checkbox
          shown
          label={t('settings.otherBins')}
          checked={next.otherBins}
          onPress={() => set({ otherBins: !next.otherBins })}
        />
        <Text colour="quiet">{t(next.otherBins ? 'settings.otherBinsYes' : 'settings.otherBinsNo')}</Text>
        <View style={{ maxWidth: 320 }}>
          <Field
            label={t('settings.nearlyEmpty')}
            numeric
            value={next.nearlyEmpty < 0 ? '' : String(next.nearlyEmpty)}
            onChange={(v) => set({ nearlyEmpty: v.trim() === '' ? -1 : Math.min(99, Number(v.replace(/\D/g, ''))) })}
          />
        </View>
        <Text colour="quiet">{t('settings.nearlyEmptyAbout')}</Text>
        <View style={{ maxWidth: 320 }}>
          <Field
            label={t('settings.countLimit')}
            numeric
            value={String(next.countLimit)}
            onChange={(v) => set({ countLimit: Math.min(9999, Number(v.replace(/\D/g, ''))) })}
          />
        </View>
        <Text colour="quiet">{t('settings.countLimitAbout')}</Text>
        <Choice
          label={t('settings.expressLane')}
          value={next.expressLane}
          onChange={(expressLane) => set({ expressLane })}
          options={[
            { value: '', title: t('settings.noExpressLane') },
            ...lanes.map((lane) => ({ value: lane, title: lane })),
          ]}
        />
        <Text colour="quiet">{t('settings.expressLaneAbout')}</Text>
        <Field
          label={t('settings.otherWork')}
          value={work}
          onChange={(text) => {
            setWork(text);
            set({ otherWork: [...new Set(text.split(',').map((w) => w.trim()))].filter(Boolean) });
          }}
        />
        <Text colour="quiet">{t('settings.otherWorkAbout')}</Text>
      </Part>
      <Part title={t('settings.bins.title')}>
        <BinRules rules={next.bins} onChange={(bins) => set({ bins })} />
      </Part>
      <Part title={t('settings.carry.title')}>
        {(['heavyFirst', 'chilledLast', 'highTogether'] as const).map((name) => (
          <Checkbox
            key={name}
            shown
            label={t(`settings.carry.${name}`)}
            checked={next.carry[name]}
            onPress={() => set({ carry: { ...next.carry, [name]: !next.carry[name] } })}
          />
        ))}
        <Text colour="quiet">{t('settings.carry.about')}</Text>
      </Part>
      <Part title={t('settings.walking.title')}>
        <Walked walking={next.walking} onChange={(walking) => set({ walking })} />
        <Checkbox
          shown
          label={t('settings.ownTrips')}
          checked={next.ownTrips}
          onPress={() => set({ ownTrips: !next.ownTrips })}
        />
        <Checkbox
          shown
          label={t('settings.askCart')}
          checked={next.askCart}
          onPress={() => set({ askCart: !next.askCart })}
        />
      </Part>
      <Part title={t('settings.sounds.title')}>
        {(['accepted', 'refused', 'finished'] as const).map((sound) => (
          <Row key={sound} gap={8}>
            <View style={{ width: 180 }}>
              <Checkbox
                shown
                label={t(`settings.sounds.${sound}`)}
                checked={next.sounds[sound]}
                onPress={() => set({ sounds: { ...next.sounds, [sound]: !next.sounds[sound] } })}
              />
            </View>
            <Button
              size="small"
              icon="volume-high"
              title={t('settings.hear')}
              label={`${t('settings.hear')}: ${t(`settings.sounds.${sound}`)}`}
              onPress={() => play(sound)}
            />
          </Row>
        ))}
      </Part>
      <Part title={t('settings.packing')}>
        <PackingSettings settings={next} onChange={set} />
      </Part>
      <Part title={t('settings.printing')}>
        <Row gap={12}>
          <Text colour="quiet">{t('settings.label.title')}</Text>
          {choice('label', ['4x6', 'a6'])}
        </Row>
        <Row gap={12}>
          <Text colour="quiet">{t('settings.paper.title')}</Text>
          {choice('paper', ['a4', 'letter'])}
        </Row>
        <Text colour="quiet">{t('settings.atStart.title')}</Text>
        {(['lists', 'slips'] as const).map((what) => (
          <Checkbox
            key={what}
            shown
            label={t(`settings.atStart.${what}`)}
            checked={next.atStart[what]}
            onPress={() => set({ atStart: { ...next.atStart, [what]: !next.atStart[what] } })}
          />
        ))}
        {(next.atStart.lists || next.atStart.slips) && (
          <Picker
            label={t('settings.atStart.printer')}
            value={next.atStart.printer}
            onChange={(printer) => set({ atStart: { ...next.atStart, printer } })}
            options={[
              { value: '', title: t('settings.atStart.any') },
              ...printers.map((code) => ({ value: code, title: code })),
            ]}
          />
        )}
      </Part>
      <Part title={t('settings.units.title')}>
        {choice('units', ['metric', 'imperial'])}
        <Text colour="quiet">{t('settings.unitsKept')}</Text>
      </Part>
      <Part title={t('settings.elsewhere')}>
        <Row>
          {(['roles', 'places', 'printers'] as const).map((sheet) => (
            <Button key={sheet} title={t(`setup.sheet.${sheet}`)} onPress={() => router.navigate(`/setup/${sheet}`)} />
          ))}
        </Row>
      </Part>
      {waves > 0 && differing.length > 0 && (
        <Signal kind="caution" text={t('settings.underWay', { count: waves })} size="body" />
      )}
      {error && <Failed text={words(troubleOf(error))} />}
      <Row>
        <Button
          kind="act"
          title={differing.length === 0 ? t('setup.save') : t('settings.save', { count: differing.length })}
          busy={isLoading}
          disabled={differing.length === 0}
          onPress={() => void go(next, settings)}
        />
        {before && differing.length === 0 && (
          <Button icon="undo" title={t('settings.takeBack')} onPress={() => void go(before, null)} />
        )}
        {differing.length > 0 && (
          <Button
            title={t('settings.asItWas')}
            onPress={() => {
              setNext(settings);
              setWork(settings.otherWork.join(', '));
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
      <Text kind="heading" level={2}>
        {title}
      </Text>
      {children}
    </Card>
  );
}

/** One way of picking, and below it what a picker will be asked, worked out by the judge of the scans itself. */
function Picking({
  title,
  settings,
  onChange,
}: {
  title: string;
  settings: PickSettings;
  onChange: (settings: PickSettings) => void;
}) {
  const { t } = useTranslation();
  const asks = scansOf(settings);
  const both = settings.checks.includes('bin') && settings.checks.includes('item');
  return (
    <View role="group" aria-label={title} style={{ flexGrow: 1, flexBasis: 340, gap: 8 }}>
      <Text kind="strong">{title}</Text>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        {checks.map((check) => (
          <Checkbox
            key={check}
            shown
            label={t(`settings.check.${check === 'position' && settings.drop === 'carton' ? 'carton' : check}`)}
            checked={settings.checks.includes(check)}
            onPress={() =>
              onChange({
                ...settings,
                checks: checks.filter((c) =>
                  c === check ? !settings.checks.includes(c) : settings.checks.includes(c),
                ),
              })
            }
          />
        ))}
      </View>
      {both && (
        <Choice
          label={t('settings.order.title')}
          value={settings.order}
          onChange={(order) => onChange({ ...settings, order })}
          options={checkOrders.map((value) => ({ value, title: t(`settings.order.${value}`) }))}
        />
      )}
      <Choice
        label={t('settings.counting.title')}
        value={settings.counting}
        onChange={(counting) => onChange({ ...settings, counting })}
        options={countings.map((value) => ({ value, title: t(`settings.counting.${value}`) }))}
      />
      <Choice
        label={t('settings.drop.title')}
        value={settings.drop}
        onChange={(drop) => onChange({ ...settings, drop })}
        options={drops.map((value) => ({ value, title: t(`settings.drop.${value}`) }))}
      />
      {settings.drop === 'carton' && <Text colour="quiet">{t('settings.drop.about')}</Text>}
      <Column gap={2}>
        <Text kind="small" colour="quiet">
          {t('settings.example')}
        </Text>
        {asks.map((ask, i) => (
          <Text key={ask} kind="small">{`${i + 1}  ${ask}`}</Text>
        ))}
        {!settings.checks.includes('item') && <Signal kind="caution" text={t('settings.noItem')} />}
      </Column>
    </View>
  );
}
