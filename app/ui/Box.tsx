import type { ReactNode } from 'react';
import { View, type StyleProp, type ViewStyle } from 'react-native';
import { useSurface } from './theme.ts';
import { Text } from './Text.tsx';

interface BoxProps {
  children?: ReactNode;
  gap?: number;
  pad?: number;
  style?: StyleProp<ViewStyle>;
}

/** Things beside one another, going on below where there is no room. */
export function Row({ children, gap = 8, pad = 0, style }: BoxProps) {
  return (
    <View style={[{ flexDirection: 'row', alignItems: 'center', flexWrap: 'wrap', gap, padding: pad }, style]}>
      {children}
    </View>
  );
}

/** Things below one another. */
export function Column({ children, gap = 8, pad = 0, style }: BoxProps) {
  return <View style={[{ gap, padding: pad }, style]}>{children}</View>;
}

/** A bordered area. */
export function Card({ children, gap = 8, pad = 16, style }: BoxProps) {
  const surface = useSurface();
  return (
    <View
      style={[
        {
          gap,
          padding: pad,
          borderWidth: 1,
          borderColor: surface.line,
          borderRadius: 4,
          backgroundColor: surface.raised,
        },
        style,
      ]}
    >
      {children}
    </View>
  );
}

/** Something under its name in small letters. */
export function Labelled({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Column gap={4}>
      <Text kind="small" colour="quiet">
        {label}
      </Text>
      {children}
    </Column>
  );
}

/** A line across. */
export function Rule() {
  const surface = useSurface();
  return <View style={{ height: 1, backgroundColor: surface.line }} />;
}
