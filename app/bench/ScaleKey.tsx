import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Button } from '../ui/index.ts';
import { serialScale } from './serialScale.ts';

/** Connects a scale that hangs on this device, where the browser lets a page have one; it is used before the bench's own. */
export function ScaleKey() {
  const { t } = useTranslation();
  const [connected, setConnected] = useState(serialScale.connected());
  if (!serialScale.possible() || connected) return null;
  const connect = () =>
    serialScale.connect().then(
      () => setConnected(true),
      // Nobody chose a line, or it is in use elsewhere: all is as before.
      () => setConnected(serialScale.connected()),
    );
  return <Button size="small" title={t('bench.connectScale')} onPress={() => void connect()} />;
}
