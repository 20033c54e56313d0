import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View } from 'react-native';
import type { Devices } from '@hand-relay/contract';
import { addressOf, api, notify, troubleOf, useMe, useNow, useAppDispatch, words } from '../state/index.ts';
import { clock, moment, relative } from '../text/index.ts';
import {
  Card,
  Choice,
  Column,
  Failed,
  Illustration,
  Button,
  Loading,
  Row,
  Signal,
  Text,
  useShortcuts,
  WIDE,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';

const CODE_PX = 200;

/** How a phone gets in, and who is signed in where. */
export function DevicesView() {
  const { t } = useTranslation();
  const router = useRouter();
  const { data, error, refetch } = api.useDevicesQuery();
  useShortcuts({ Escape: () => router.navigate('/setup') });
  return (
    <Page
      title={t('devices.title')}
      onBack={() => router.navigate('/setup')}
      aside={<Button size="small" title={t('scanner.title')} onPress={() => router.navigate('/setup/scanner')} />}
    >
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading />}
      {data && (
        <View style={{ maxWidth: 900, gap: 16 }}>
          <Another addresses={data.addresses} secure={data.secure} />
          <SignedIn devices={data.devices} />
        </View>
      )}
    </Page>
  );
}

function Another({ addresses, secure }: { addresses: string[]; secure: boolean }) {
  const { t } = useTranslation();
  const { width } = useWindowDimensions();
  const [chosen, setChosen] = useState(addresses[0]!);
  const local = /\/\/(localhost|127\.)/.test(chosen);
  return (
    <Card gap={12}>
      <Text kind="heading" level={2}>
        {t('devices.another')}
      </Text>
      <View style={{ flexDirection: width >= WIDE ? 'row' : 'column', gap: 20 }}>
        <View style={{ padding: 14, backgroundColor: '#FFFFFF', alignSelf: 'flex-start' }}>
          <Illustration
            uri={addressOf({ name: 'addressCode', query: { text: chosen } })}
            words={t('devices.code', { address: chosen })}
            style={{ width: CODE_PX, height: CODE_PX }}
          />
        </View>
        <Column gap={10} style={{ flexShrink: 1 }}>
          <Text kind="strong">{chosen}</Text>
          <Text>{t('devices.how')}</Text>
          {addresses.length > 1 && (
            <Choice
              label={t('devices.address')}
              value={chosen}
              onChange={setChosen}
              options={addresses.map((value) => ({ value, title: value.replace(/^https?:\/\//, '') }))}
            />
          )}
          {local && <Signal kind="caution" text={t('devices.local')} size="body" />}
          {secure ? (
            <Signal kind="done" text={t('devices.secure')} size="body" />
          ) : (
            <>
              <Signal kind="caution" text={t('devices.insecure')} size="body" />
              <Text colour="quiet">{t('devices.tls')}</Text>
              <Text kind="mono">{t('devices.command')}</Text>
            </>
          )}
        </Column>
      </View>
    </Card>
  );
}

type Device = Devices['devices'][number];

function SignedIn({ devices }: { devices: Device[] }) {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const send = useAppDispatch();
  const [signOut, { error }] = api.useSignOutDeviceMutation();
  const end = async (device: Device) => {
    const done = await signOut(device.id);
    if (!done.error) send(notify({ kind: 'done', text: t('devices.ended', { person: device.person }) }));
  };
  return (
    <Card gap={8}>
      <Text kind="heading" level={2}>
        {t('devices.signedIn', { count: devices.length })}
      </Text>
      {error && <Failed text={words(troubleOf(error))} />}
      {devices.map((d) => (
        <Row key={d.id} gap={12} style={{ justifyContent: 'space-between', flexWrap: 'nowrap' }}>
          <View style={{ flexShrink: 1 }}>
            <Text kind="strong">{d.person}</Text>
            <Text kind="small" colour="quiet">
              {[
                d.device,
                browserName(d.browser),
                t('devices.since', { time: clock(d.since, me.site.timeZone), end: relative(d.until, now) }),
              ]
                .filter(Boolean)
                .join(' · ')}
            </Text>
            {d.offlineSince && (
              <Signal
                kind="caution"
                text={t('devices.offline', { time: moment(d.offlineSince, me.site.timeZone, now) })}
              />
            )}
          </View>
          {d.own ? (
            <Text colour="quiet">{t('devices.this')}</Text>
          ) : (
            <Button
              size="small"
              title={t('devices.end')}
              label={`${t('devices.end')}: ${d.person}, ${d.device}`}
              onPress={() => void end(d)}
            />
          )}
        </Row>
      ))}
    </Card>
  );
}

/** The kind of machine out of what a browser says of itself, as far as it says so. */
function browserName(text: string): string {
  return /(Android|iPhone|iPad|Windows|Macintosh|Linux)/.exec(text)?.[1]?.replace('Macintosh', 'Mac') ?? '';
}
