import { useTranslation } from 'react-i18next';
import { useWindowDimensions } from 'react-native';
import { useAppSelector, useMe, words } from '../state/index.ts';
import { clock } from '../text/index.ts';
import { Button, Row, Signal, Text, WIDE } from '../ui/index.ts';

/** Says when the Desk was computed and what changed since, and computes it again. */
export function Freshness({
  onCompute,
  brief,
}: {
  onCompute: () => void;
  /** The key without its word, and where nothing changed since without the time too. */
  brief?: 'time' | 'key';
}) {
  const { t } = useTranslation();
  const me = useMe();
  const { at, changed, stock, reading, trouble } = useAppSelector((s) => s.outlook);
  const wide = useWindowDimensions().width >= WIDE;
  const count = Object.keys(changed).length;
  const time = at ? clock(at, me.site.timeZone) : '';
  const text = trouble
    ? words(trouble)
    : count > 0
      ? t('fresh.orders', { count, time })
      : stock
        ? t('fresh.stock', { time })
        : at
          ? t('fresh.at', { time })
          : t(reading ? 'fresh.reading' : 'fresh.never');
  return (
    <Row gap={8}>
      {trouble || count > 0 || stock ? (
        <Signal kind="caution" text={text} />
      ) : (
        <Text kind="small" colour="quiet" live="polite">
          {brief === 'key' && at ? '' : text}
        </Text>
      )}
      <Button
        title={t('fresh.again')}
        icon="refresh"
        iconOnly={!wide || brief !== undefined}
        size="small"
        busy={reading}
        onPress={onCompute}
      />
    </Row>
  );
}
