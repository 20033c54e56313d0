import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { useTranslation } from 'react-i18next';
import { Column, Row } from './Box.tsx';
import { Button } from './Button.tsx';
import { Signal } from './Signal.tsx';
import { useSurface } from './theme.ts';
import { Text } from './Text.tsx';

/** Says why there is nothing, and what fills it. */
export function Empty({
  title,
  text,
  action,
}: {
  title: string;
  text: string;
  action?: { title: string; onPress: () => void };
}) {
  return (
    <Column gap={8} pad={24} style={{ alignItems: 'flex-start', maxWidth: 560 }}>
      <Text kind="heading" level={2}>
        {title}
      </Text>
      <Text colour="quiet">{text}</Text>
      {action && <Button title={action.title} onPress={action.onPress} kind="act" />}
    </Column>
  );
}

/** The shape of what comes. It stays away for a moment, so that a quick answer does not flicker. */
export function Loading({ rows = 6, height = 40 }: { rows?: number; height?: number }) {
  const surface = useSurface();
  const { t } = useTranslation();
  const [shown, setShown] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setShown(true), 150);
    return () => clearTimeout(timer);
  }, []);
  return (
    <View role="status" aria-label={t('state.loading')} style={{ gap: 8, padding: 16, opacity: shown ? 1 : 0 }}>
      {Array.from({ length: rows }, (_, i) => (
        <View
          key={i}
          style={{ height, borderRadius: 4, backgroundColor: surface.sunk, width: `${92 - ((i * 17) % 40)}%` }}
        />
      ))}
    </View>
  );
}

/** What failed, near where it failed, with a way to try again. */
export function Failed({ text, onRetry }: { text: string; onRetry?: () => void }) {
  const { t } = useTranslation();
  return (
    <View role="alert" style={{ padding: 16 }}>
      <Row gap={16}>
        <Signal kind="refused" text={text} size="body" />
        {onRetry && <Button title={t('state.retry')} onPress={onRetry} size="small" />}
      </Row>
    </View>
  );
}
