import { useRouter } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { Linking, Pressable, useWindowDimensions, View } from 'react-native';
import { sheetNames } from '@hand-relay/core/reading/sheets/names';
import { addressOf, api, troubleOf, useMay, useMe, words } from '../state/index.ts';
import { number } from '../text/index.ts';
import { Card, Column, Failed, Button, Loading, Row, Signal, Text, useSurface, WIDE } from '../ui/index.ts';
import { Page } from '../shell/index.ts';

/** What the house has of each kind, and first what it still needs, with why. */
export function SetupHome() {
  const { t } = useTranslation();
  const router = useRouter();
  const surface = useSurface();
  const wide = useWindowDimensions().width >= WIDE;
  const { data, error, refetch } = api.useSetupOverviewQuery();
  const { standins, version } = useMe();
  const backups = useMay('house.backups');
  const pages = (
    ['settings', 'holds', 'devices', 'printing', 'labels', 'host', 'backups', 'history', 'stuck'] as const
  ).filter((page) => (page !== 'backups' || backups) && (page !== 'host' || standins));
  return (
    <Page
      title={t('place.setup')}
      aside={
        <Row gap={4}>
          <Button size="small" title={t('setup.site')} onPress={() => router.navigate('/setup/site')} />
          {pages.map((page) => (
            <Button
              key={page}
              size="small"
              title={t(`setup.page.${page}`)}
              onPress={() => router.navigate(`/setup/${page}`)}
            />
          ))}
          <Button
            size="small"
            icon="printer-outline"
            title={t('setup.badges')}
            onPress={() => void Linking.openURL(addressOf({ name: 'badges' }))}
          />
          <Button
            size="small"
            icon="printer-outline"
            title={t('setup.countSheet')}
            onPress={() => void Linking.openURL(addressOf({ name: 'countSheet' }))}
          />
        </Row>
      }
    >
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading />}
      {data && data.missing.length > 0 && (
        <Card gap={10}>
          <Text kind="heading" level={2}>
            {t('setup.missing', { count: data.missing.length })}
          </Text>
          {data.missing.map(({ what, why }, i) => (
            <Row key={why} gap={12} style={{ justifyContent: 'space-between', flexWrap: 'nowrap' }}>
              <View style={{ flexShrink: 1 }}>
                <Text kind="strong">{t(`setup.lacks.${why}.title`)}</Text>
                <Text colour="quiet">{t(`setup.lacks.${why}.text`)}</Text>
              </View>
              <Button
                kind={i === 0 ? 'act' : 'plain'}
                title={t(what === 'bins' ? 'setup.makeFloor' : 'setup.goAdd')}
                label={`${t(what === 'bins' ? 'setup.makeFloor' : 'setup.goAdd')} ${what === 'site' ? t('setup.lacks.prefix.title') : t(`setup.sheet.${what}`)}`}
                onPress={() => router.navigate(what === 'bins' ? '/setup/floor' : `/setup/${what}`)}
              />
            </Row>
          ))}
        </Card>
      )}
      {data?.missing.length === 0 && <Signal kind="done" text={t('setup.complete')} size="body" />}
      {data && (
        <View role="group" aria-label={t('place.setup')} style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
          {sheetNames.map((name) => (
            <Pressable
              key={name}
              role="link"
              aria-label={`${t(`setup.sheet.${name}`)}, ${number(data.counts[name] ?? 0)}`}
              onPress={() => router.navigate(`/setup/${name}`)}
              style={{
                width: wide ? 280 : '100%',
                minHeight: 84,
                padding: 14,
                borderWidth: 1,
                borderColor: surface.line,
                borderRadius: 4,
                backgroundColor: surface.raised,
              }}
            >
              <Row gap={8} style={{ justifyContent: 'space-between', flexWrap: 'nowrap' }}>
                <Text kind="heading">{t(`setup.sheet.${name}`)}</Text>
                <Text kind="number">{number(data.counts[name] ?? 0)}</Text>
              </Row>
              <Text kind="small" colour="quiet">
                {t(`setup.about.${name}`)}
              </Text>
            </Pressable>
          ))}
        </View>
      )}
      {data && (
        <Column gap={4}>
          <Row>
            <Button title={t('setup.makeFloor')} onPress={() => router.navigate('/setup/floor')} />
          </Row>
          <Text kind="small" colour="quiet">
            {t('setup.version', { version: version?.product ?? '–', app: version?.app ?? '–' })}
          </Text>
        </Column>
      )}
    </Page>
  );
}
