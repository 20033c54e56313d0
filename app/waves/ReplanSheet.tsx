import { useEffect } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { PlanSums, WaveSummary } from '@hand-relay/contract';
import { api, notify, troubleOf, useMe, useAppDispatch, words } from '../state/index.ts';
import { clock, distance, duration, number } from '../text/index.ts';
import { Column, Failed, Button, Loading, Sheet, Signal, Text, useSurface } from '../ui/index.ts';

/** What a new plan of the runs that nobody has begun would change, before it does. */
export function ReplanSheet({ wave, onClose }: { wave: WaveSummary; onClose: () => void }) {
  const { t } = useTranslation();
  const me = useMe();
  const send = useAppDispatch();
  const surface = useSurface();
  const [look, { data, error, isLoading }] = api.usePreviewReplanMutation();
  const [replan, doing] = api.useReplanMutation();
  const { id } = wave;
  useEffect(() => void look(id), [look, id]);
  const go = async () => {
    const done = await replan(id);
    if (!done.data) return;
    onClose();
    send(notify({ kind: 'done', text: t('replan.done', { number: wave.number }) }));
  };
  const time = (instant: string) => clock(instant, me.site.timeZone);
  const facts: [string, (s: PlanSums) => string][] = [
    [t('waves.runs'), (s) => number(s.runs)],
    [t('waves.stops'), (s) => number(s.stops)],
    [t('waves.walk'), (s) => distance(s.metres)],
    [t('compare.work'), (s) => duration(s.seconds)],
    [t('compare.ends'), (s) => time(s.ends)],
    [t('compare.range'), (s) => `${time(s.early)}–${time(s.late)}`],
  ];
  const row = { flexDirection: 'row' as const, borderBottomWidth: 1, borderColor: surface.line };
  const cell = { flex: 1, paddingVertical: 6, alignItems: 'flex-end' as const };
  return (
    <Sheet
      title={t('replan.title', { number: wave.number })}
      onClose={onClose}
      keys={
        <>
          <Button title={t('release.cancel')} onPress={onClose} />
          {doing.error ? (
            <Button title={t('replan.again')} onPress={() => void look(id).then(() => doing.reset())} />
          ) : (
            <Button
              kind="act"
              title={t('replan.go')}
              disabled={!data}
              busy={doing.isLoading}
              onPress={() => void go()}
            />
          )}
        </>
      }
    >
      {isLoading && <Loading rows={5} />}
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void look(id)} />}
      {doing.error && <Failed text={words(troubleOf(doing.error))} />}
      {data && !isLoading && (
        <Column gap={10}>
          <Text colour="quiet">{t('replan.about')}</Text>
          <View role="table" aria-label={t('replan.title', { number: wave.number })}>
            <View role="row" style={row}>
              <View role="columnheader" style={{ flex: 1 }} />
              <View role="columnheader" style={cell}>
                <Text kind="label">{t('replan.before')}</Text>
              </View>
              <View role="columnheader" style={cell}>
                <Text kind="label">{t('replan.after')}</Text>
              </View>
            </View>
            {facts.map(([name, of]) => (
              <View key={name} role="row" style={row}>
                <View role="rowheader" style={{ flex: 1, paddingVertical: 6 }}>
                  <Text colour="quiet">{name}</Text>
                </View>
                <View role="cell" style={cell}>
                  <Text kind="number">{of(data.before)}</Text>
                </View>
                <View role="cell" style={cell}>
                  <Text kind="number">{of(data.after)}</Text>
                </View>
              </View>
            ))}
          </View>
          <Text>{t('replan.changes', { bins: data.bins, orders: data.orders })}</Text>
          {data.shorts.map((s) => (
            <Signal key={`${s.order} ${s.sku}`} kind="caution" size="body" text={t('replan.short', { ...s })} />
          ))}
        </Column>
      )}
    </Sheet>
  );
}
