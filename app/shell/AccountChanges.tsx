import { useTranslation } from 'react-i18next';
import { api, useMe, useNow } from '../state/index.ts';
import { moment } from '../text/index.ts';
import { Button, Signal } from '../ui/index.ts';
import { Bar } from './Bar.tsx';

/** Tells a person what others changed about their account, until they say that they have seen it. */
export function AccountChanges() {
  const { t } = useTranslation();
  // A device may hold who is signed in as an earlier release told it.
  const { accountChanges = [], site } = useMe();
  const now = useNow();
  const [seen, { isLoading }] = api.useSawAccountChangesMutation();
  const newest = accountChanges[0];
  if (!newest) return null;
  const lines = accountChanges.map(({ id, at, by, what, role }) => ({
    id,
    text: t('account.changed', {
      by,
      what: what.map((column) => t(`account.what.${column}`, { role })).join(', '),
      when: moment(at, site.timeZone, now),
    }),
  }));
  return (
    <Bar
      action={
        <Button
          size="small"
          title={t('account.seen')}
          busy={isLoading}
          onPress={() => void seen({ upTo: newest.id })}
        />
      }
    >
      {lines.map((line) => (
        <Signal key={line.id} kind="caution" size="body" text={line.text} />
      ))}
    </Bar>
  );
}
