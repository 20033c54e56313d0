import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import type { RunPick } from '@hand-relay/contract';
import { shortReasons, type ShortReason } from '@hand-relay/core/picking';
import { number } from '../text/index.ts';
import { Column, Key, Row, Sheet, SurfaceContext, Txt } from '../ui/index.ts';

/** Says what is wrong at a bin, and how many are good: three touches at most. */
export function ShortSheet({
  pick,
  onClose,
  onReport,
}: {
  pick: RunPick;
  onClose: () => void;
  onReport: (units: number, reason: ShortReason) => void;
}) {
  const { t } = useTranslation();
  const low = pick.progress.counted;
  const high = pick.step.units - 1;
  const [reason, setReason] = useState<ShortReason | null>(null);
  const [good, setGood] = useState(low);
  return (
    <SurfaceContext.Provider value="floor">
      <Sheet
        title={t('floor.shortTitle', { bin: pick.step.bin })}
        onClose={onClose}
        keys={
          <>
            <Key size="floor" title={t('release.cancel')} onPress={onClose} />
            <Key
              size="floor"
              kind="act"
              title={t('floor.shortGo', { missing: number(pick.step.units - good) })}
              disabled={reason === null || low > high}
              onPress={() => reason && onReport(good, reason)}
            />
          </>
        }
      >
        <Txt>{pick.step.item.name}</Txt>
        <Row gap={8}>
          {shortReasons.map((r) => (
            <Key
              key={r}
              size="floor"
              title={t(`floor.reason.${r}`)}
              pressed={reason === r}
              onPress={() => setReason(r)}
            />
          ))}
        </Row>
        <Column gap={4}>
          <Txt kind="heading">{t('floor.shortAsk')}</Txt>
          <Row gap={12}>
            <Key
              size="floor"
              icon="minus"
              iconOnly
              title="−1"
              disabled={good <= low}
              onPress={() => setGood(good - 1)}
            />
            <Txt kind="figure" style={{ minWidth: 64 }} align="center" live="polite">
              {number(good)}
            </Txt>
            <Key
              size="floor"
              icon="plus"
              iconOnly
              title="+1"
              disabled={good >= high}
              onPress={() => setGood(good + 1)}
            />
            <Txt colour="quiet">{t('floor.shortHint', { low: number(low), high: number(high) })}</Txt>
          </Row>
        </Column>
      </Sheet>
    </SurfaceContext.Provider>
  );
}
