import { useRouter } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { DeskTask } from '@hand-relay/contract';
import { api, notify, troubleOf, useMay, useMe, useAppDispatch, words } from '../state/index.ts';
import { clock, number } from '../text/index.ts';
import { Column, Empty, Failed, Button, Loading, Row, Signal, Text, useShortcuts, useSurface } from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { DeskTabs } from './DeskTabs.tsx';

/** Goods picked for a line that asks less now, and the two ways to go on. */
export function Surplus({ task, linked = false }: { task: DeskTask; linked?: boolean }) {
  const { t } = useTranslation();
  const router = useRouter();
  const send = useAppDispatch();
  const me = useMe();
  const surface = useSurface();
  const maySettle = [useMay('orders.cancel'), useMay('runs.arrange')].includes(true);
  const [settle, { isLoading, error }] = api.useSettleTaskMutation();
  const decide = async (decision: 'put-back' | 'ship-anyway') => {
    const done = await settle({ id: task.id, decision });
    if (done.data)
      send(
        notify({ kind: 'done', text: t(`surplus.done.${decision}`, { units: number(task.units), item: task.name }) }),
      );
  };
  return (
    <View style={{ borderWidth: 1, borderColor: surface.caution, padding: 12, gap: 8 }}>
      <Signal
        kind="caution"
        size="body"
        text={t('surplus.text', { order: task.number, line: task.line, units: number(task.units), item: task.name })}
      />
      <Text kind="small" colour="quiet">
        {[
          task.customer,
          task.where && t('surplus.where', { where: task.where }),
          task.cartons.length > 0 &&
            t('surplus.cartons', { count: task.cartons.length, list: task.cartons.join(', ') }),
          clock(task.at, me.site.timeZone),
        ]
          .filter(Boolean)
          .join(' · ')}
      </Text>
      {error && <Failed text={words(troubleOf(error))} />}
      <Row gap={8}>
        {maySettle && (
          <>
            <Button
              title={t('surplus.putBack', { units: number(task.units) })}
              busy={isLoading}
              onPress={() => void decide('put-back')}
            />
            <Button title={t('surplus.ship')} disabled={isLoading} onPress={() => void decide('ship-anyway')} />
          </>
        )}
        {linked && (
          <Button
            title={t('surplus.open', { order: task.number })}
            onPress={() => router.navigate(`/desk/orders/${task.order}`)}
          />
        )}
      </Row>
    </View>
  );
}

/** What must be decided, as orders changed or were cancelled after goods were picked. */
export function SurplusView() {
  const { t } = useTranslation();
  const router = useRouter();
  const { data, error, refetch } = api.useDeskTasksQuery();
  useShortcuts({ Escape: () => router.navigate('/desk') });
  return (
    <Page title={t('surplus.title')} aside={<DeskTabs at="surplus" />}>
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading rows={3} />}
      {data?.tasks.length === 0 && <Empty title={t('surplus.noneTitle')} text={t('surplus.noneText')} />}
      <Column gap={12}>
        {data?.tasks.map((task) => (
          <Surplus key={task.id} task={task} linked />
        ))}
      </Column>
    </Page>
  );
}
