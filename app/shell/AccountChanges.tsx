import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { api, useMe, useNow } from '../state/index.ts';
import { clock, dayName } from '../text/index.ts';
import { charcoal, Key, Row, Signal, SurfaceContext } from '../ui/index.ts';

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
      when: `${dayName(at.slice(0, 10), site.timeZone, now)} ${clock(at, site.timeZone)}`,
    }),
  }));
  return (
    <SurfaceContext.Provider value="floor">
      <Row
        gap={12}
        style={{
          backgroundColor: charcoal,
          paddingHorizontal: 12,
          paddingVertical: 4,
          flexWrap: 'nowrap',
        }}
      >
        <View role="status" style={{ flex: 1, minWidth: 0, gap: 2 }}>
          {lines.map((line) => (
            <Signal key={line.id} kind="caution" size="body" text={line.text} />
          ))}
        </View>
        <Key size="small" title={t('account.seen')} busy={isLoading} onPress={() => void seen(newest.id)} />
      </Row>
    </SurfaceContext.Provider>
  );
}
