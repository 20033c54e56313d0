import type { ReactNode } from 'react';
import { ScrollView, useWindowDimensions, View } from 'react-native';
import { Key, NARROW, Txt, useSurface, WIDE } from '../ui/index.ts';
import { useTranslation } from 'react-i18next';

export interface PageProps {
  title: string;
  /** Beside the title. */
  aside?: ReactNode;
  onBack?: (() => void) | undefined;
  children: ReactNode;
  /** Content that scrolls by itself, as a table. */
  filled?: boolean;
  /** Stays at the foot, in reach of the thumb. */
  foot?: ReactNode;
}

/** A screen: its title, its content, and what stays at its foot. */
export function Page({ title, aside, onBack, children, filled = false, foot }: PageProps) {
  const surface = useSurface();
  const { t } = useTranslation();
  const { width } = useWindowDimensions();
  const edge = width >= WIDE ? 20 : 12;
  return (
    <View role="main" style={{ flex: 1, minHeight: 0, minWidth: 0, backgroundColor: surface.ground }}>
      <View
        style={{
          flexDirection: 'row',
          flexWrap: 'wrap',
          alignItems: 'center',
          columnGap: 12,
          rowGap: 4,
          paddingHorizontal: edge,
          paddingTop: 10,
          paddingBottom: 8,
        }}
      >
        {onBack && <Key title={t('nav.back')} icon="arrow-left" iconOnly onPress={onBack} />}
        <Txt kind={width < NARROW ? 'heading' : 'title'} level={1} style={{ flexGrow: 1 }}>
          {title}
        </Txt>
        {aside && <View style={{ flexShrink: 1 }}>{aside}</View>}
      </View>
      {filled ? (
        <View style={{ flex: 1, minHeight: 0 }}>{children}</View>
      ) : (
        <ScrollView
          style={{ flex: 1, minHeight: 0 }}
          contentContainerStyle={{ paddingHorizontal: edge, paddingBottom: 24, gap: 16 }}
        >
          {children}
        </ScrollView>
      )}
      {foot && (
        <View
          style={{
            padding: edge,
            paddingVertical: 10,
            borderTopWidth: 1,
            borderColor: surface.line,
            backgroundColor: surface.ground,
          }}
        >
          {foot}
        </View>
      )}
    </View>
  );
}
