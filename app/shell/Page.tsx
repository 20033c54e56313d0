import type { ReactNode } from 'react';
import { ScrollView, useWindowDimensions, View } from 'react-native';
import { Button, Text, useNarrow, useSurface, WIDE } from '../ui/index.ts';
import { usePathname } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { usePageTitle } from './pageTitle.ts';
import { inRun } from './inRun.ts';
import { Person } from './Person.tsx';

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

/** Share of a screen with very large letters that the foot may take; the rest of it is scrolled to. */
const FOOT = 0.4;

/** A screen: its title, its content, and what stays at its foot. */
export function Page({ title, aside, onBack, children, filled = false, foot }: PageProps) {
  const surface = useSurface();
  const { t } = useTranslation();
  const { width, height } = useWindowDimensions();
  const narrow = useNarrow();
  const path = usePathname();
  const edge = width >= WIDE ? 20 : 12;
  usePageTitle(title);
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
        {onBack && <Button title={t('nav.back')} icon="arrow-left" iconOnly onPress={onBack} />}
        <Text kind={narrow ? 'heading' : 'title'} level={1} style={{ flexGrow: 1 }}>
          {title}
        </Text>
        {width < WIDE && inRun(path) && <Person icon />}
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
        <ScrollView
          // With very large letters the foot would cover all that is to be read.
          style={{ flexGrow: 0, ...(narrow ? { maxHeight: height * FOOT } : { flexShrink: 0 }) }}
          contentContainerStyle={{
            padding: edge,
            paddingVertical: 10,
            borderTopWidth: 1,
            borderColor: surface.line,
            backgroundColor: surface.ground,
          }}
        >
          {foot}
        </ScrollView>
      )}
    </View>
  );
}
