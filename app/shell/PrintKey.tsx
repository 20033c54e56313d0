import type { PrintKind } from '@hand-relay/contract';
import { useTranslation } from 'react-i18next';
import { afterTold } from '../offline/index.ts';
import { api, deviceName, notify, troubleOf, useAppDispatch, words } from '../state/index.ts';
import { Button } from '../ui/index.ts';

/** Prints a document where this bench, door or device prints, and says where that is. */
export function PrintKey({
  kind,
  of,
  station,
  after,
  title,
  disabled = false,
  size = 'desk',
}: {
  kind: PrintKind;
  /** The carton, shipment or run. */
  of: string;
  /** The bench or door; without it the device's own name stands for it. */
  station?: string | undefined;
  /** The run whose picks the document tells of: the server has to hear of them first. */
  after?: string;
  title: string;
  disabled?: boolean;
  size?: 'desk' | 'floor';
}) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const [print, { isLoading }] = api.usePrintMutation();
  const go = async () => {
    const done = await afterTold(after ?? '', () => print({ kind, of, station: station ?? deviceName() }));
    send(
      notify(
        done.data
          ? { kind: 'done', text: t('printing.sent', { printer: done.data.printer }) }
          : { kind: 'refused', text: words(troubleOf(done.error)) },
      ),
    );
  };
  return (
    <Button
      icon="printer-outline"
      size={size}
      title={title}
      disabled={disabled}
      busy={isLoading}
      onPress={() => void go()}
    />
  );
}
