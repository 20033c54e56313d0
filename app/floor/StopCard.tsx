import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { RunPick } from '@hand-relay/contract';
import { Button, Stripes, Text, useScans, useSurface } from '../ui/index.ts';

/** A hold that came while the run was under way: what is stopped, why, and what to do with what is in hand. */
export function StopCard({
  pick,
  carried,
  onScan,
  onUnderstood,
  onOut,
}: {
  pick: RunPick;
  /** Something of the order lies on the cart. */
  carried: boolean;
  /** Whatever is scanned before somebody has understood is refused. */
  onScan: (text: string) => void;
  onUnderstood: () => void;
  onOut: () => void;
}) {
  const { t } = useTranslation();
  const surface = useSurface();
  useScans(onScan);
  return (
    <View role="alert" style={{ flex: 1, margin: 12, borderWidth: 2, borderColor: surface.caution }}>
      <Stripes height={20} />
      <View style={{ flex: 1, padding: 20, gap: 16 }}>
        <Text kind="large">{t('hold.stopNow', { order: pick.order.number })}</Text>
        <Text kind="large" colour="caution">
          {pick.order.hold}
        </Text>
        <Text kind="large">{t('hold.inHand', { bin: pick.step.bin, position: pick.step.position.number })}</Text>
      </View>
      <View style={{ padding: 12, flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {carried && <Button size="floor" wide title={t('hold.putBack')} onPress={onOut} />}
        <Button kind="act" size="floor" wide title={t('hold.understood')} onPress={onUnderstood} />
      </View>
    </View>
  );
}
