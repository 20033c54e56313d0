import type { ReactNode } from 'react';
import { Text as NativeText, type StyleProp, type TextStyle } from 'react-native';
import { fonts, useSurface, type Surface } from './theme.ts';

const kinds = {
  title: { fontFamily: fonts.heading, fontSize: 26, lineHeight: 32 },
  heading: { fontFamily: fonts.heading, fontSize: 19, lineHeight: 24 },
  tab: { fontFamily: fonts.heading, fontSize: 16, lineHeight: 22 },
  body: { fontFamily: fonts.text, fontSize: 15, lineHeight: 21 },
  strong: { fontFamily: fonts.strong, fontSize: 15, lineHeight: 21 },
  small: { fontFamily: fonts.text, fontSize: 13, lineHeight: 18 },
  label: { fontFamily: fonts.medium, fontSize: 13, lineHeight: 18 },
  figure: { fontFamily: fonts.heading, fontSize: 30, lineHeight: 34, fontVariant: ['tabular-nums'] },
  code: { fontFamily: fonts.code, fontSize: 60, lineHeight: 64, fontVariant: ['tabular-nums'] },
  large: { fontFamily: fonts.heading, fontSize: 24, lineHeight: 30 },
  mono: { fontFamily: fonts.mono, fontSize: 13, lineHeight: 18 },
  number: { fontFamily: fonts.text, fontSize: 15, lineHeight: 21, fontVariant: ['tabular-nums'] },
} as const satisfies Record<string, TextStyle>;

export type TxtKind = keyof typeof kinds;
type Colour = 'ink' | 'quiet' | 'caution' | 'refused' | 'done' | 'cold' | 'onAct';

export interface TextProps {
  kind?: TxtKind;
  colour?: Colour;
  /** Cut after so many lines. */
  lines?: number;
  align?: 'left' | 'center' | 'right';
  style?: StyleProp<TextStyle>;
  /** Heading level for screen readers. */
  level?: 1 | 2 | 3;
  live?: 'polite' | 'assertive';
  id?: string;
  children: ReactNode;
}

/** All text goes through here: type, size and colour by name. */
export function Text({ kind = 'body', colour = 'ink', lines, align, style, level, live, id, children }: TextProps) {
  const surface: Surface = useSurface();
  return (
    <NativeText
      {...(lines ? { numberOfLines: lines } : {})}
      {...(level ? { role: 'heading' as const, 'aria-level': level } : {})}
      {...(live ? { 'aria-live': live } : {})}
      {...(id ? { nativeID: id } : {})}
      style={[kinds[kind], { color: surface[colour] }, align ? { textAlign: align } : null, style]}
    >
      {children}
    </NativeText>
  );
}
