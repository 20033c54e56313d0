import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { LineAvailability } from '@hand-relay/contract';
import { api, setLines, notify, troubleOf, useMay, useMe, useNow, useAppDispatch, words } from '../state/index.ts';
import { dayName, number } from '../text/index.ts';
import { Failed, Field, Button, Row, Signal } from '../ui/index.ts';

/** Why a line gets what it gets, and the keys by which a person decides otherwise. */
export function LineWhy({
  order,
  lineNumber,
  promise,
}: {
  order: string;
  lineNumber: number;
  promise: LineAvailability;
}) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const me = useMe();
  const now = useNow();
  const mayChoose = useMay('orders.choose');
  const mayRelease = useMay('orders.release');
  const [fix, { isLoading, error }] = api.useAllocateManuallyMutation();
  const [units, setUnits] = useState<string | null>(null);
  const day = (date: string) => dayName(date, me.site.timeZone, now);
  const { reason, gets, asked, sure, could, takers, tooOld, reserved: reserved, manual, fullBy } = promise;
  const said = t(`why.${reason}`, {
    gets: number(gets),
    asked: number(asked),
    tooOld: number(tooOld),
    takers: takers
      .map((x) => t('why.taker', { units: number(x.units), number: x.number, class: x.class, day: day(x.due) }))
      .join(', '),
  });
  const more = [
    reason === 'taken' && tooOld > 0 ? t('why.tooOld', { count: tooOld }) : '',
    reserved > 0 ? t('why.kept', { units: number(reserved) }) : '',
    reason !== 'full' || sure < could ? `${t('why.sure', { sure: number(sure), could: number(could) })}.` : '',
    fullBy ? t('why.fullBy', { day: day(fullBy) }) : '',
  ].filter(Boolean);
  const settle = async (wanted: number | null) => {
    const done = await fix({ lines: [{ line: promise.line, units: wanted }] });
    if (!done.data) return;
    setUnits(null);
    send(
      notify({
        kind: 'done',
        text: t('items.manual', { count: 1 }),
        undo: { name: 'allocateManually', body: { lines: done.data.lines } },
      }),
    );
  };
  const typed = units === null || !/^\d+$/.test(units.trim()) ? null : Number(units);
  const good = typed !== null && typed <= asked;
  const reasonSign = (
    <Signal
      kind={reason === 'full' ? 'done' : reason === 'manual' ? 'quiet' : 'caution'}
      text={[said, ...more].join(' ')}
    />
  );
  return (
    <View style={{ gap: 6 }}>
      {units === null ? (
        <Row gap={6} style={{ justifyContent: 'space-between' }}>
          <View style={{ flexShrink: 1, flexGrow: 1, flexBasis: 200 }}>{reasonSign}</View>
          {mayChoose && <Button title={t('why.fix')} size="small" onPress={() => setUnits(String(gets))} />}
          {mayChoose && manual !== null && (
            <Button title={t('why.loosen')} size="small" busy={isLoading} onPress={() => void settle(null)} />
          )}
        </Row>
      ) : (
        <>
          {reasonSign}
          <Row gap={6}>
            <View style={{ width: 96 }}>
              <Field
                bare
                focus
                numeric
                label={t('why.units', { line: lineNumber })}
                value={units}
                onChange={setUnits}
                onSubmit={() => good && void settle(typed)}
                error={
                  good || units === '' ? undefined : t('refusal.allocated-too-much', { line: lineNumber, open: asked })
                }
              />
            </View>
            <Button
              title={t('why.fix')}
              size="small"
              disabled={!good}
              busy={isLoading}
              onPress={() => void settle(typed)}
            />
            {mayRelease && (
              <Button
                title={t('why.tray')}
                size="small"
                disabled={!good}
                onPress={() => {
                  send(setLines({ order, lines: { [promise.line]: typed! } }));
                  setUnits(null);
                }}
              />
            )}
            <Button title={t('release.cancel')} size="small" onPress={() => setUnits(null)} />
          </Row>
        </>
      )}
      {error && <Failed text={words(troubleOf(error))} />}
    </View>
  );
}
