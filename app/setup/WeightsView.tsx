import { useRouter } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { ItemWeights } from '@hand-relay/contract';
import { api, notify, troubleOf, useAppDispatch, words } from '../state/index.ts';
import { mass } from '../text/index.ts';
import { Button, Card, Column, Empty, Failed, Loading, Picture, Row, Text, useShortcuts } from '../ui/index.ts';
import { Page } from '../shell/index.ts';

/** Items whose cartons weigh otherwise than entered: one key enters what the cartons say. */
export function WeightsView() {
  const { t } = useTranslation();
  const router = useRouter();
  const { data, error, refetch } = api.useItemWeightsQuery();
  useShortcuts({ Escape: () => router.navigate('/setup') });
  return (
    <Page title={t('weights.title')} onBack={() => router.navigate('/setup')}>
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading />}
      {data?.items.length === 0 && <Empty title={t('weights.none')} text={t('weights.noneText')} />}
      <View style={{ maxWidth: 900, gap: 8 }}>
        {data?.items.map((item) => (
          <Item key={item.id} item={item} />
        ))}
      </View>
    </Page>
  );
}

function Item({ item }: { item: ItemWeights['items'][number] }) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const [correct, { error, isLoading }] = api.useCorrectItemWeightMutation();
  const enter = async () => {
    const done = await correct({ id: item.id, weightG: item.properG, before: item.enteredG });
    if (done.data) send(notify({ kind: 'done', text: t('weights.done', { item: item.name }) }));
  };
  return (
    <Card gap={8} pad={12}>
      <Row gap={16}>
        <Picture name={item.picture} size={44} />
        <Column gap={2} style={{ flexGrow: 1, flexBasis: 200, minWidth: 0 }}>
          <Text kind="strong">{item.name}</Text>
          <Text kind="mono" colour="quiet">
            {item.sku}
          </Text>
        </Column>
        <Column gap={2}>
          <Text kind="strong">{t('weights.proper', { mass: mass(item.properG) })}</Text>
          <Text kind="small" colour="quiet">
            {t('weights.entered', { mass: mass(item.enteredG) })} · {t('weights.cartons', { count: item.cartons })}
          </Text>
        </Column>
        <Button
          title={t('weights.use', { mass: mass(item.properG) })}
          label={`${item.name}: ${t('weights.use', { mass: mass(item.properG) })}`}
          busy={isLoading}
          onPress={() => void enter()}
        />
      </Row>
      {error && <Failed text={words(troubleOf(error))} />}
    </Card>
  );
}
