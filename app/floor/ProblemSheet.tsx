import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { RunPick } from '@hand-relay/contract';
import { shortReasons, type PickInput, type ShortReason } from '@hand-relay/core/handling/picking';
import { number } from '../text/index.ts';
import { Column, Failed, Field, Button, Row, Sheet, SurfaceContext, Text, useNarrow } from '../ui/index.ts';
import { takePhoto } from './takePhoto.ts';
import { useCountCodes } from './useCountCodes.ts';

type Report = Extract<PickInput, { kind: 'short' }>;

/** What the picker says of the bin, with which an order leaves the run. */
export type Problem = Pick<Report, 'reason' | 'units'> & { note: string };

/** Reasons after which it is asked how many good ones there were; after the others nothing more can be taken there. */
const asksGood: ReadonlySet<ShortReason> = new Set(['not-enough', 'damaged']);

/** Other bins that are offered by a key of their own. */
const OFFERED = 3;

/**
 * What is wrong at a bin, and how it goes on: the key that opened this, the reason, the way on. Three touches, unless
 * some are good and not counted yet.
 */
export function ProblemSheet({
  pick,
  alone,
  onClose,
  onReport,
  onLater,
  onOut,
}: {
  pick: RunPick;
  /** Nothing else is open in this run. */
  alone: boolean;
  onClose: () => void;
  onReport: (report: Report, photo: string | null) => void;
  onLater: () => void;
  onOut: (problem: Problem, photo: string | null) => void;
}) {
  const { t } = useTranslation();
  const narrow = useNarrow();
  const low = pick.progress.counted;
  const high = pick.step.units - 1;
  const [reason, setReason] = useState<ShortReason | null>(null);
  const [typed, setTyped] = useState('');
  const [note, setNote] = useState<string | null>(null);
  const [photo, setPhoto] = useState<string | null>(null);
  const [unread, setUnread] = useState(false);
  const asks = reason !== null && asksGood.has(reason);
  const good = asks ? Number(typed) : low;
  const known = !asks || (typed !== '' && good >= low && good <= high);
  const missing = pick.step.units - good;
  useCountCodes((n) => n !== null && setTyped(String(n)), asks);
  const said = note?.trim() ?? '';
  const report = (rest?: Report['rest']) =>
    reason &&
    known &&
    onReport({ kind: 'short', units: good, reason, ...(said ? { note: said } : {}), ...(rest ? { rest } : {}) }, photo);
  const step = (by: number) =>
    setTyped(String(Math.max(low, Math.min(high, (typed === '' ? Math.min(low, good) : good) + by))));
  const wide = { flexDirection: 'row' } as const;
  return (
    <SurfaceContext.Provider value="floor">
      <Sheet
        title={t('floor.shortTitle', { bin: pick.step.bin })}
        onClose={onClose}
        keys={<Button size="floor" title={t('release.cancel')} onPress={onClose} />}
      >
        {reason === null ? (
          <Column gap={8}>
            {shortReasons.map((r) => (
              <View key={r} style={wide}>
                <Button size="floor" wide title={t(`floor.reason.${r}`)} onPress={() => setReason(r)} />
              </View>
            ))}
          </Column>
        ) : (
          <>
            <Text kind="heading">{t(`floor.reason.${reason}`)}</Text>
            {asks && (
              <Row gap={narrow ? 4 : 8} style={{ flexWrap: 'nowrap', alignItems: 'flex-end' }}>
                <View style={{ flex: 1, minWidth: 0 }}>
                  <Field
                    size="floor"
                    numeric
                    focus
                    label={t('floor.shortAsk', { units: number(pick.step.units) })}
                    value={typed}
                    error={typed !== '' && !known ? t('floor.shortRange', { low, high }) : undefined}
                    onChange={(v) => setTyped(v.replace(/\D/g, '').slice(0, 6))}
                  />
                </View>
                <Button size="floor" icon="minus" iconOnly title="−1" onPress={() => step(-1)} />
                <Button size="floor" icon="plus" iconOnly title="+1" onPress={() => step(1)} />
              </Row>
            )}
            <Column gap={8}>
              {pick.step.elsewhere.slice(0, OFFERED).map(({ bin, lot, units }) => (
                <View key={`${bin} ${lot}`} style={wide}>
                  <Button
                    size="floor"
                    wide
                    kind={bin === pick.step.elsewhere[0]!.bin ? 'act' : 'plain'}
                    title={t(lot === pick.step.lot ? 'floor.takeFrom' : 'floor.takeLotFrom', {
                      missing: known ? number(missing) : '…',
                      bin,
                      lot,
                      units: number(units),
                    })}
                    disabled={!known}
                    onPress={() => report({ bin, lot })}
                  />
                </View>
              ))}
              <View style={wide}>
                <Button
                  size="floor"
                  wide
                  kind={pick.step.elsewhere.length === 0 ? 'act' : 'plain'}
                  title={t('floor.shortGo', { missing: known ? number(missing) : '…' })}
                  disabled={!known || low > high}
                  onPress={() => report()}
                />
              </View>
              <Row gap={8}>
                {!alone && <Button size="floor" wide title={t('floor.later')} onPress={onLater} />}
                {!pick.together && (
                  <Button
                    size="floor"
                    wide
                    title={t('floor.out', { order: pick.order.number })}
                    disabled={!known}
                    onPress={() => onOut({ reason, units: good, note: said }, photo)}
                  />
                )}
              </Row>
            </Column>
            {note !== null && <Field size="floor" label={t('floor.note')} focus value={note} onChange={setNote} />}
            {unread && <Failed text={t('floor.photoUnread')} />}
            <Row gap={8}>
              {note === null && (
                <Button size="floor" icon="note-text-outline" title={t('floor.note')} onPress={() => setNote('')} />
              )}
              <Button
                size="floor"
                icon="camera-outline"
                title={photo ? t('floor.photoTaken') : t('floor.photo')}
                pressed={photo !== null}
                onPress={() => {
                  setUnread(false);
                  takePhoto().then(
                    (taken) => taken && setPhoto(taken),
                    () => setUnread(true),
                  );
                }}
              />
            </Row>
          </>
        )}
      </Sheet>
    </SurfaceContext.Provider>
  );
}
