import { useTranslation } from 'react-i18next';
import { useMay } from '../state/index.ts';
import { Button } from '../ui/index.ts';

/** Releases into a wave that gathers, or plans and starts it too, which is what comes next for who may. */
export function ReleaseKeys({
  orders,
  disabled,
  busy,
  onGo,
}: {
  orders: number;
  disabled: boolean;
  busy: boolean;
  onGo: (how: { start: boolean }) => void;
}) {
  const { t } = useTranslation();
  const mayStart = useMay('waves.run');
  const title = t('orders.release', { count: orders });
  return (
    <>
      <Button
        kind={mayStart ? 'plain' : 'act'}
        title={title}
        disabled={disabled}
        busy={busy}
        onPress={() => onGo({ start: false })}
      />
      {mayStart && (
        <Button
          kind="act"
          title={t('release.andStart')}
          label={t('release.andStartOf', { count: orders })}
          disabled={disabled}
          busy={busy}
          onPress={() => onGo({ start: true })}
        />
      )}
    </>
  );
}
