import { useRouter } from 'expo-router';
import { useLayoutEffect, useRef, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { TRIAL_CODE } from '@hand-relay/contract';
import { addressOf, placesOf, notify, useMe, useAppDispatch } from '../state/index.ts';
import {
  Card,
  charcoal,
  Choice,
  Facts,
  Field,
  Illustration,
  Button,
  PAUSES,
  readTrial,
  recordKeys,
  Row,
  ScanField,
  scannerEnds,
  scannerHere,
  setScanner,
  Signal,
  Text,
  usualScanner,
  useShortcuts,
  type Press,
  type Scanner,
  type Tried,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';

/** Without a key for so long a scan is over. */
const OVER_MS = 1_500;

/** Tries the scanner of this device on a known code, and sets how it types. */
export function ScannerView() {
  const { t } = useTranslation();
  const router = useRouter();
  const send = useAppDispatch();
  const me = useMe();
  const back = () => router.navigate(placesOf(me).includes('setup') ? '/setup' : '/');
  const [settings, setSettings] = useState<Scanner>(scannerHere);
  const save = (scanner: Scanner) => {
    setScanner(scanner);
    setSettings(scanner);
    send(notify({ kind: 'done', text: t('scanner.saved') }));
  };
  const [tried, setTried] = useState<Tried | null>(null);
  useShortcuts({ Escape: back });
  return (
    <Page title={t('scanner.title')} onBack={back}>
      <View style={{ maxWidth: 640, gap: 16 }}>
        <Card gap={12}>
          <Text kind="heading" level={2}>
            {t('scanner.scanThis')}
          </Text>
          <View style={{ padding: 8, backgroundColor: '#FFFFFF', alignSelf: 'flex-start' }}>
            <Illustration
              uri={addressOf({ name: 'trialCode' })}
              words={t('scanner.code', { text: TRIAL_CODE })}
              style={{ width: 300, height: 104 }}
            />
            <Text kind="mono" align="center" style={{ color: charcoal }}>
              {TRIAL_CODE}
            </Text>
          </View>
          {tried ? (
            <Outcome tried={tried} inUse={settings} onUse={save} onAgain={() => setTried(null)} />
          ) : (
            <Trial onTried={setTried} />
          )}
        </Card>
        <Manual key={JSON.stringify(settings)} settings={settings} onSave={save} />
        {tried && <Heard />}
      </View>
    </Page>
  );
}

/** Records keys until nothing follows. */
function Trial({ onTried }: { onTried: (tried: Tried) => void }) {
  const { t } = useTranslation();
  const presses = useRef<Press[]>([]);
  // Before it is painted: who reads that a scan is awaited may scan at once.
  useLayoutEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const stop = recordKeys((press) => {
      presses.current.push(press);
      clearTimeout(timer);
      timer = setTimeout(() => onTried(readTrial(presses.current, TRIAL_CODE)), OVER_MS);
    });
    return () => {
      clearTimeout(timer);
      stop();
    };
  }, [onTried]);
  return (
    <Text colour="quiet" live="polite">
      {t('scanner.waiting')}
    </Text>
  );
}

function Outcome({
  tried,
  inUse,
  onUse,
  onAgain,
}: {
  tried: Tried;
  inUse: Scanner;
  onUse: (scanner: Scanner) => void;
  onAgain: () => void;
}) {
  const { t } = useTranslation();
  const again = <Button title={t('scanner.again')} icon="refresh" onPress={onAgain} />;
  if (tried.kind !== 'read')
    return (
      <>
        <Signal kind="refused" size="body" text={wrong(tried, t)} />
        <Row>{again}</Row>
      </>
    );
  const { scanner, medianMs, longestMs } = tried;
  const same = JSON.stringify(scanner) === JSON.stringify(inUse);
  return (
    <>
      <Facts
        facts={[
          { name: t('scanner.arrived'), value: TRIAL_CODE },
          { name: t('scanner.ends'), value: t(`scanner.end.${scanner.ends}`) },
          { name: t('scanner.prefix'), value: scanner.prefix || t('scanner.noPrefix') },
          {
            name: t('scanner.speedName'),
            value: t('scanner.speed', { median: Math.round(medianMs), longest: Math.round(longestMs) }),
          },
        ]}
      />
      {scanner.ends === 'pause' && <Signal kind="caution" size="body" text={t('scanner.pauseAbout')} />}
      {same && <Signal kind="done" size="body" text={t('scanner.inUse')} />}
      <Row>
        {!same && <Button kind="act" title={t('scanner.use')} onPress={() => onUse(scanner)} />}
        {again}
      </Row>
    </>
  );
}

/** What is wrong with what came, and what to do. */
function wrong(tried: Exclude<Tried, { kind: 'read' }>, t: ReturnType<typeof useTranslation>['t']): string {
  switch (tried.kind) {
    case 'nothing':
      return t('scanner.nothing', { key: 'Enter / Tab' });
    case 'other':
      return t(tried.keyboard ? 'scanner.keyboard' : 'scanner.other', { text: tried.text, expected: TRIAL_CODE });
    case 'longPrefix':
      return t('scanner.longPrefix', tried);
    case 'suffix':
      return t('scanner.suffix', tried);
  }
}

/** The same by hand, for who knows their scanner. */
function Manual({ settings, onSave }: { settings: Scanner; onSave: (scanner: Scanner) => void }) {
  const { t } = useTranslation();
  const [next, setNext] = useState(settings);
  const [pause, setPause] = useState(String(settings.pauseMs));
  const pauseMs = Number(pause);
  const prefixWrong = [...next.prefix].length > 1;
  const pauseWrong = !Number.isInteger(pauseMs) || pauseMs < PAUSES.least || pauseMs > PAUSES.most;
  const wanted = { ...next, pauseMs };
  const same = JSON.stringify(wanted) === JSON.stringify(settings);
  const usual = JSON.stringify(settings) === JSON.stringify(usualScanner);
  return (
    <Card gap={12}>
      <Choice
        label={t('scanner.ends')}
        value={next.ends}
        onChange={(ends) => setNext({ ...next, ends })}
        options={scannerEnds.map((value) => ({ value, title: t(`scanner.end.${value}`) }))}
      />
      {next.ends === 'pause' && <Text colour="quiet">{t('scanner.pauseAbout')}</Text>}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
        <View style={{ width: 260 }}>
          <Field
            label={t('scanner.prefix')}
            value={next.prefix}
            placeholder={t('scanner.noPrefix')}
            error={prefixWrong ? t('scanner.onePrefix') : undefined}
            onChange={(prefix) => setNext({ ...next, prefix })}
          />
        </View>
        <View style={{ width: 260 }}>
          <Field
            label={t('scanner.pause')}
            value={pause}
            numeric
            error={pauseWrong ? t('scanner.pauseRange', PAUSES) : undefined}
            onChange={setPause}
          />
        </View>
      </View>
      <Row>
        <Button title={t('scanner.use')} disabled={same || prefixWrong || pauseWrong} onPress={() => onSave(wanted)} />
        {!usual && <Button title={t('scanner.usual')} onPress={() => onSave(usualScanner)} />}
      </Row>
    </Card>
  );
}

/** Scans as every screen hears them now. */
function Heard() {
  const { t } = useTranslation();
  const [code, setCode] = useState('');
  return (
    <Card gap={8}>
      <ScanField label={t('scanner.worksTry')} onCode={setCode} size="desk" />
      {code !== '' && (
        <Text kind="mono" live="polite">
          {t('scanner.heard', { text: code })}
        </Text>
      )}
    </Card>
  );
}
