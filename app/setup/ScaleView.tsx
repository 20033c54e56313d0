import Slider from '@rneui/themed/dist/Slider';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { StandinScales } from '@hand-relay/contract';
import { api, troubleOf, words } from '../state/index.ts';
import { mass } from '../text/index.ts';
import {
  Button,
  Card,
  Choice,
  Empty,
  Failed,
  Field,
  Loading,
  Row,
  Signal,
  Text,
  useShortcuts,
  useSurface,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';

/** What the slider reaches, in grams; more is typed. */
const SLIDES_TO = 30_000;
const MOST = 2_000_000;

/** The scale that ships with the product: what it shows at each bench is set by hand, and it can fail as real ones do. */
export function ScaleView() {
  const { t } = useTranslation();
  const router = useRouter();
  const { data, error, refetch } = api.useStandinScalesQuery();
  useShortcuts({ Escape: () => router.navigate('/setup') });
  return (
    <Page title={t('scale.title')} onBack={() => router.navigate('/setup')}>
      <Text>{t('scale.about')}</Text>
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading />}
      {data?.scales.length === 0 && <Empty title={t('scale.none')} text={t('scale.noneText')} />}
      <View style={{ maxWidth: 900, gap: 16 }}>
        {data?.scales.map((scale) => (
          <Scale key={`${scale.bench} ${scale.grams}`} scale={scale} />
        ))}
      </View>
    </Page>
  );
}

function Scale({ scale }: { scale: StandinScales['scales'][number] }) {
  const { t } = useTranslation();
  const surface = useSurface();
  const [set, { error, isLoading }] = api.useSetStandinScaleMutation();
  const [typed, setTyped] = useState(String(scale.grams));
  const grams = typed === '' ? NaN : Number(typed);
  const good = grams >= 0 && grams <= MOST;
  const { bench, mode } = scale;
  return (
    <View role="group" aria-label={bench}>
      <Card gap={12}>
        <Row gap={16} style={{ justifyContent: 'space-between' }}>
          <Text kind="heading" level={2}>
            {bench}
          </Text>
          {good && <Text kind="figure">{mass(grams)}</Text>}
        </Row>
        {!scale.used && <Signal kind="quiet" text={t('scale.unused')} size="body" />}
        <Slider
          value={Math.min(SLIDES_TO, good ? grams : 0)}
          minimumValue={0}
          maximumValue={SLIDES_TO}
          step={10}
          onValueChange={(value) => setTyped(String(Math.round(value)))}
          minimumTrackTintColor={surface.ink}
          maximumTrackTintColor={surface.line}
          thumbTintColor={surface.ink}
          thumbStyle={{ width: 24, height: 24, borderRadius: 4 }}
          aria-label={t('scale.grams')}
          aria-valuemin={0}
          aria-valuemax={SLIDES_TO}
          aria-valuenow={Math.min(SLIDES_TO, good ? grams : 0)}
        />
        <Row gap={12} style={{ alignItems: 'flex-start' }}>
          <View style={{ width: 140 }}>
            <Field
              numeric
              label={t('scale.grams')}
              value={typed}
              onChange={(text) => setTyped(text.replace(/\D/g, ''))}
              error={good ? undefined : t('scale.between', { most: MOST })}
            />
          </View>
          <Button
            title={t('scale.set')}
            disabled={!good}
            busy={isLoading}
            onPress={() => void set({ bench, grams, mode })}
          />
        </Row>
        <Choice
          label={t('scale.mode.title')}
          value={mode}
          onChange={(next) => void set({ bench, grams: scale.grams, mode: next })}
          options={(['steady', 'unsteady', 'silent'] as const).map((m) => ({ value: m, title: t(`scale.mode.${m}`) }))}
        />
        {error && <Failed text={words(troubleOf(error))} />}
      </Card>
    </View>
  );
}
