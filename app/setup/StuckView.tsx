import { Link, useRouter } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { api, troubleOf, useMe, useNow, words } from '../state/index.ts';
import { moment } from '../text/index.ts';
import { Card, Empty, Failed, Loading, Signal, Text, useShortcuts } from '../ui/index.ts';
import { Page } from '../shell/index.ts';

/** Work that does not go on by itself, each with its way out. Nobody should ever see it full. */
export function StuckView() {
  const { t } = useTranslation();
  const router = useRouter();
  const me = useMe();
  const now = useNow();
  const { data, error, refetch } = api.useStuckQuery();
  useShortcuts({ Escape: () => router.navigate('/setup') });
  return (
    <Page title={t('setup.page.stuck')} onBack={() => router.navigate('/setup')}>
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading />}
      {data?.stuck.length === 0 && <Empty title={t('setup.stuck.none')} text={t('setup.stuck.noneText')} />}
      <View style={{ maxWidth: 900, gap: 8 }}>
        {data?.stuck.map((one) => (
          <Card key={`${one.kind} ${one.id}`} gap={4} pad={12}>
            <Signal kind="caution" size="body" text={t(`setup.stuck.kind.${one.kind}.title`, { name: one.name })} />
            <Text>{t(`setup.stuck.kind.${one.kind}.text`)}</Text>
            {one.since && (
              <Text kind="small" colour="quiet">
                {t('setup.stuck.since', { time: moment(one.since, me.site.timeZone, now) })}
              </Text>
            )}
            <Link href={one.link} style={{ minHeight: 32 }}>
              <Text kind="strong" style={{ textDecorationLine: 'underline' }}>
                {t('setup.stuck.open')}
              </Text>
            </Link>
          </Card>
        ))}
      </View>
    </Page>
  );
}
