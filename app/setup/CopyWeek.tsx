import { useTranslation } from 'react-i18next';
import type { Row } from '@hand-relay/core/reading/sheets';
import { api, notify, troubleOf, useAppDispatch, words } from '../state/index.ts';
import { calendarDay } from '../text/index.ts';
import { Button } from '../ui/index.ts';
import { weekAfter } from './roster.ts';

/** Rows of one change. */
const AT_ONCE = 500;

/** Has the roster go on as its last week was. */
export function CopyWeek({ rows }: { rows: readonly Row[] }) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const [change, { isLoading }] = api.useChangeSheetMutation();
  const week = weekAfter(rows);
  if (!week) return null;
  const go = async () => {
    let count = 0;
    for (let i = 0; i < week.shifts.length; i += AT_ONCE) {
      const { data, error } = await change({ id: 'roster', rows: week.shifts.slice(i, i + AT_ONCE) });
      if (!data) return void send(notify({ kind: 'refused', text: words(troubleOf(error)) }));
      count += data.changed;
    }
    send(notify({ kind: 'done', text: t('setup.weekCopied', { count }) }));
  };
  return (
    <Button
      size="small"
      icon="playlist-plus"
      title={t('setup.copyWeek', { to: calendarDay(week.to) })}
      busy={isLoading}
      onPress={() => void go()}
    />
  );
}
