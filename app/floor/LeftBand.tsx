import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { Field, Button, Row, Text } from '../ui/index.ts';
import type { LeftOver } from './useRun.ts';

/** Whether in the bin just left nearly nothing is left: one touch where that is so, else the number. It waits for nobody. */
export function LeftBand({ left, onSay }: { left: LeftOver; onSay: (units: number) => void }) {
  const { t } = useTranslation();
  const [typing, setTyping] = useState<string | null>(null);
  const say = () => typing !== null && typing !== '' && onSay(Number(typing));
  return (
    <Row gap={8} style={{ flexWrap: 'nowrap' }}>
      {typing === null ? (
        <>
          <View style={{ flex: 1, minWidth: 0 }}>
            <Text kind="strong" lines={2}>
              {t('floor.leftAsk', { bin: left.bin, item: left.item, count: left.expected })}
            </Text>
          </View>
          <Button
            size="floor"
            title={t('floor.leftYes', { count: left.expected })}
            onPress={() => onSay(left.expected)}
          />
          <Button size="floor" title={t('floor.leftOther')} onPress={() => setTyping('')} />
        </>
      ) : (
        <>
          <View style={{ flex: 1 }}>
            <Field
              size="floor"
              bare
              numeric
              focus
              label={t('floor.leftHow', { bin: left.bin, item: left.item })}
              value={typing}
              onChange={(v) => setTyping(v.replace(/\D/g, ''))}
              onSubmit={say}
            />
          </View>
          <Button size="floor" kind="act" title={t('scan.take')} disabled={typing === ''} onPress={say} />
        </>
      )}
    </Row>
  );
}
