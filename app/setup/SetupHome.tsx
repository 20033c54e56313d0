import { useRouter } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { api, troubleOf, useMe, words } from '../state/index.ts';
import { Card, Failed, Button, Loading, Row, Signal, Text } from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { SetupGroups } from './SetupGroups.tsx';

/** What the house has of each kind, and first what it still needs, with why. */
export function SetupHome() {
  const { t } = useTranslation();
  const router = useRouter();
  const { data, error, refetch } = api.useSetupOverviewQuery();
  const { version } = useMe();
  return (
    <Page title={t('place.setup')}>
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
      {data && <SetupGroups counts={data.counts} />}
      {data && (
        <Text kind="small" colour="quiet">
          {t('setup.version', { version: version?.product ?? '–', app: version?.app ?? '–' })}
        </Text>
      )}
    </Page>
  );
}
