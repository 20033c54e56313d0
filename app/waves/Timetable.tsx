import { useRouter } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { TimetableEntry } from '@hand-relay/contract';
import { api, troubleOf, useMay, useMe, useNow, words } from '../state/index.ts';
import { relative, timeOf } from '../text/index.ts';
import { Failed, Button, Row, Text, useSurface } from '../ui/index.ts';

/** Entries of the timetable: what waits for each, and what happens by itself. */
export function Timetable() {
  const { t } = useTranslation();
  const router = useRouter();
  const [mayGather, maySet] = [useMay('orders.release'), useMay('setup.change')];
  const { data, error, refetch } = api.useTimetableQuery();
  const [gather, gathering] = api.useGatherEntryMutation();
  const go = async (id: string) => {
    const done = await gather(id);
    if (done.data) router.navigate(`/waves/${done.data.wave}`);
  };
  return (
    <View style={{ gap: 6 }}>
      <Row gap={12} style={{ justifyContent: 'space-between' }}>
        <Text kind="heading" level={2}>
          {t('timetable.title')}
        </Text>
        {maySet && (
          <Button size="small" title={t('timetable.change')} onPress={() => router.navigate('/setup/timetable')} />
        )}
      </Row>
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {gathering.error && <Failed text={words(troubleOf(gathering.error))} />}
      {data?.entries.length === 0 && <Text colour="quiet">{t('timetable.none')}</Text>}
      {data?.entries.map((entry) => (
        <EntryRow key={entry.id} entry={entry} {...(mayGather ? { onGather: () => void go(entry.id) } : {})} />
      ))}
    </View>
  );
}

function EntryRow({ entry, onGather }: { entry: TimetableEntry; onGather?: () => void }) {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const surface = useSurface();
  const { gather, plan, start } = entry;
  const happens = [
    t(`timetable.gather.${gather}`, { at: entry.gatherAt, level: entry.gatherLevel }),
    t(`timetable.plan.${plan}`, { at: entry.planAt }),
    t(`timetable.start.${start}`, { at: entry.startAt }),
  ].join(', ');
  return (
    <Row
      gap={16}
      style={{ borderTopWidth: 1, borderColor: surface.line, paddingVertical: 6, justifyContent: 'space-between' }}
    >
      <View style={{ flexGrow: 1, flexBasis: 260, minWidth: 0 }}>
        <Text kind="strong">{entry.name}</Text>
        <Text kind="small" colour="quiet">
          {happens}
        </Text>
      </View>
      <Text colour="quiet">
        {[
          entry.departure,
          entry.leavesAt && `${timeOf(entry.leavesAt, me.site.timeZone, now)}, ${relative(entry.leavesAt, now)}`,
        ]
          .filter(Boolean)
          .join(' · ')}
      </Text>
      <Row gap={12}>
        <Text kind="number">{t('timetable.waits', { count: entry.orders })}</Text>
        {onGather && (
          <Button
            size="small"
            title={t('timetable.go')}
            label={`${t('timetable.go')}: ${entry.name}`}
            disabled={entry.orders === 0}
            onPress={onGather}
          />
        )}
      </Row>
    </Row>
  );
}
