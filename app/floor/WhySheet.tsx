import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { touchReasons, type TouchReason } from '@hand-relay/core/deciding/settings';
import { Column, Button, Sheet, SurfaceContext } from '../ui/index.ts';

/** Why something is confirmed by touch where the site asks for a scan: one touch more. */
export function WhySheet({ onWhy, onClose }: { onWhy: (why: TouchReason) => void; onClose: () => void }) {
  const { t } = useTranslation();
  return (
    <SurfaceContext.Provider value="floor">
      <Sheet
        title={t('floor.whyTitle')}
        onClose={onClose}
        keys={<Button size="floor" title={t('release.cancel')} onPress={onClose} />}
      >
        <Column gap={8}>
          {touchReasons.map((why) => (
            <View key={why} style={{ flexDirection: 'row' }}>
              <Button size="floor" wide title={t(`floor.why.${why}`)} onPress={() => onWhy(why)} />
            </View>
          ))}
        </Column>
      </Sheet>
    </SurfaceContext.Provider>
  );
}
