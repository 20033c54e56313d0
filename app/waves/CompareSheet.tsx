import { useTranslation } from 'react-i18next';
import { ScrollView, View } from 'react-native';
import type { WaveSummary } from '@hand-relay/contract';
import { useMe } from '../state/index.ts';
import { clock, distance, duration, number } from '../text/index.ts';
import { Button, Sheet, Text, useSurface } from '../ui/index.ts';

/** Waves side by side: what each holds, asks and promises. */
export function CompareSheet({ waves, onClose }: { waves: WaveSummary[]; onClose: () => void }) {
  const { t } = useTranslation();
  const me = useMe();
  const surface = useSurface();
  const time = (instant: string | null | undefined) => (instant ? clock(instant, me.site.timeZone) : '–');
  const facts: [name: string, of: (w: WaveSummary) => string][] = [
    [t('compare.state'), (w) => t(`waves.state.${w.state}`)],
    [t('waves.orders'), (w) => number(w.orders)],
    [t('waves.lines'), (w) => number(w.lines)],
    [t('waves.units'), (w) => number(w.units)],
    [t('waves.runs'), (w) => number(w.runs)],
    [t('waves.walk'), (w) => (w.runs > 0 ? distance(w.metres) : '–')],
    [t('compare.perLine'), (w) => (w.runs > 0 && w.lines > 0 ? distance(w.metres / w.lines) : '–')],
    [t('compare.work'), (w) => (w.foreseen ? duration(w.foreseen.seconds) : '–')],
    [t('compare.people'), (w) => (w.foreseen ? number(w.foreseen.people) : '–')],
    [t('compare.ends'), (w) => time(w.forecast?.ends)],
    [t('compare.range'), (w) => (w.forecast?.early ? `${time(w.forecast.early)}–${time(w.forecast.late)}` : '–')],
    [t('compare.doneBy'), (w) => time(w.doneBy)],
    [t('waves.leaves'), (w) => time(w.earliestDeparture)],
    [t('compare.chance'), (w) => (w.chance ? t(`compare.chances.${w.chance}`) : '–')],
  ];
  const cell = { width: 110, paddingVertical: 6, paddingHorizontal: 8, alignItems: 'flex-end' as const };
  return (
    <Sheet title={t('compare.title')} onClose={onClose} keys={<Button title={t('notice.close')} onPress={onClose} />}>
      <ScrollView horizontal>
        <View role="table" aria-label={t('compare.title')}>
          <View role="row" style={{ flexDirection: 'row', borderBottomWidth: 1, borderColor: surface.quiet }}>
            <View role="columnheader" style={{ width: 150 }} />
            {waves.map((w) => (
              <View key={w.id} role="columnheader" style={cell}>
                <Text kind="strong">{t('waves.number', { number: w.number })}</Text>
              </View>
            ))}
          </View>
          {facts.map(([name, of]) => (
            <View
              key={name}
              role="row"
              style={{ flexDirection: 'row', borderBottomWidth: 1, borderColor: surface.line }}
            >
              <View role="rowheader" style={{ width: 150, paddingVertical: 6 }}>
                <Text colour="quiet">{name}</Text>
              </View>
              {waves.map((w) => (
                <View key={w.id} role="cell" style={cell}>
                  <Text kind="number">{of(w)}</Text>
                </View>
              ))}
            </View>
          ))}
        </View>
      </ScrollView>
    </Sheet>
  );
}
