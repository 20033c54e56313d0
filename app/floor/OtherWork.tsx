import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { LAST_DONE } from '../offline/index.ts';
import { api, remembered, troubleOf, useMe, useNow, words } from '../state/index.ts';
import { clock, duration } from '../text/index.ts';
import { Card, Column, Failed, Button, Row, Sheet, Signal, SurfaceContext, Text } from '../ui/index.ts';

/** Minutes without a scan after which the device asks what is done instead. */
const QUIET_MINUTES = 15;
/** Longer than that it was another day. */
const SHIFT_MINUTES = 8 * 60;

/** Other work than picking: what is done now, or the site's list to begin something of it. */
export function OtherWork() {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const { data } = api.useActivitiesQuery();
  const [change, { isLoading, error }] = api.useChangeActivityMutation();
  const [choosing, setChoosing] = useState(false);
  if (!data || data.list.length === 0) return null;
  const begin = async (kind: string | null) => {
    const done = await change({ kind });
    if (done.data) setChoosing(false);
  };
  const last = Number(remembered(LAST_DONE) ?? now);
  const quietFor = Math.floor((now - last) / 60_000);
  if (data.now)
    return (
      <Card gap={10}>
        <Row gap={12} style={{ flexWrap: 'nowrap', justifyContent: 'space-between' }}>
          <View style={{ flex: 1, minWidth: 0 }}>
            <Text kind="title">{data.now.kind}</Text>
            <Text colour="quiet">
              {t('work.since', {
                time: clock(data.now.since, me.site.timeZone),
                long: duration(Math.max(0, (now - Date.parse(data.now.since)) / 1000)),
              })}
            </Text>
          </View>
          <Button kind="act" size="floor" title={t('work.end')} busy={isLoading} onPress={() => void begin(null)} />
        </Row>
        {error && <Failed text={words(troubleOf(error))} />}
      </Card>
    );
  return (
    <>
      {quietFor >= QUIET_MINUTES && quietFor < SHIFT_MINUTES && (
        <Signal kind="quiet" size="body" text={t('work.quiet', { count: quietFor })} />
      )}
      <Button size="floor" icon="account-clock-outline" title={t('work.other')} onPress={() => setChoosing(true)} />
      {choosing && (
        <SurfaceContext.Provider value="floor">
          <Sheet
            title={t('work.title')}
            onClose={() => setChoosing(false)}
            keys={<Button size="floor" title={t('release.cancel')} onPress={() => setChoosing(false)} />}
          >
            <Column gap={8}>
              {data.list.map((kind) => (
                <View key={kind} style={{ flexDirection: 'row' }}>
                  <Button size="floor" wide title={kind} disabled={isLoading} onPress={() => void begin(kind)} />
                </View>
              ))}
            </Column>
            {error && <Failed text={words(troubleOf(error))} />}
          </Sheet>
        </SurfaceContext.Provider>
      )}
    </>
  );
}
