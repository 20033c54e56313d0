import { useLocalSearchParams, useRouter } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { ScrollView, useWindowDimensions, View } from 'react-native';
import { localDate } from '@hand-relay/core/calendar';
import {
  addressOf,
  api,
  fetchFile,
  notify,
  troubleOf,
  useAppDispatch,
  useMay,
  useMe,
  useNow,
  words,
} from '../state/index.ts';
import { dayName, headed, number } from '../text/index.ts';
import { Button, Choice, DayField, Drop, Failed, Loading, Row, saveFile, useShortcuts, WIDE } from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { LeftOver } from './LeftOver.tsx';
import { reportCells } from './reportCells.ts';
import { ReportTables } from './ReportTables.tsx';
import { StillOpen } from './StillOpen.tsx';

const parts = ['open', 'report'] as const;

/** The end of a day: what is still open and why, decided together; what else is not settled; what the day came to. */
export function EndOfDayView() {
  const { t } = useTranslation();
  const router = useRouter();
  const me = useMe();
  const now = useNow();
  const send = useAppDispatch();
  const wide = useWindowDimensions().width >= WIDE;
  const mayTrail = useMay('trail.see');
  const params = useLocalSearchParams<{ date?: string; part?: string; departure?: string }>();
  const today = localDate(now, me.site.timeZone);
  const date = params.date && /^\d{4}-\d{2}-\d{2}$/.test(params.date) ? params.date : today;
  const part = parts.find((p) => p === params.part) ?? 'open';
  const { currentData, data: last, error, refetch } = api.useDayQuery(date === today ? {} : { date });
  const data = currentData ?? last;
  useShortcuts({ Escape: () => router.navigate('/waves') });
  const save = async () => {
    if (!data) return;
    const answer = await fetchFile({ name: 'workbook', body: { cells: reportCells(data.date, data.report) } });
    if ('error' in answer) send(notify({ kind: 'caution', text: words(answer.error) }));
    else saveFile(`day-${data.date}.xlsx`, answer.data, answer.data.type);
  };
  return (
    <Page title={t('day.title')} onBack={() => router.navigate('/waves')} filled>
      <View style={{ paddingHorizontal: wide ? 20 : 12, gap: 12, paddingBottom: 8 }}>
        <Row gap={8}>
          <Choice
            bare
            label={t('day.title')}
            value={part}
            onChange={(value) => router.setParams({ part: value })}
            options={parts.map((value) => ({
              value,
              title:
                value === 'open' && data ? t('day.openCount', { n: number(data.open.length) }) : t(`day.part.${value}`),
            }))}
          />
          <Drop label={t('day.day')} title={headed(dayName(date, me.site.timeZone, now))} set={date !== today}>
            <DayField label={t('day.day')} value={date} onChange={(day) => router.setParams({ date: day || today })} />
          </Drop>
          <View style={{ flex: 1 }} />
          {mayTrail && data && (
            <Row gap={4}>
              <Button
                size="small"
                icon="printer-outline"
                title={t('day.print')}
                onPress={() => window.open(addressOf({ name: 'dayPaper', query: { date } }), '_blank')}
              />
              <Button size="small" icon="download" title={t('list.xlsx')} onPress={() => void save()} />
            </Row>
          )}
        </Row>
        {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
        {!data && !error && <Loading rows={6} />}
        {data && part === 'open' && date === today && <LeftOver left={data.left} />}
      </View>
      {data && part === 'open' && (
        <StillOpen
          open={data.open}
          today={today}
          departure={params.departure ?? ''}
          onDeparture={(departure) => router.setParams({ departure })}
        />
      )}
      {data && part === 'report' && (
        <ScrollView contentContainerStyle={{ paddingHorizontal: wide ? 20 : 12, paddingTop: 12, paddingBottom: 40 }}>
          <ReportTables report={data.report} />
        </ScrollView>
      )}
    </Page>
  );
}
