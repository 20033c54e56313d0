import { View } from 'react-native';
import Svg, { Path, Rect } from 'react-native-svg';
import { useSurface } from './theme.ts';
import { Text, type TxtKind } from './Text.tsx';

export type SignalKind = 'caution' | 'refused' | 'done' | 'cold' | 'quiet';

/** The shape that goes with a signal's colour: nobody needs to tell colours apart. */
export function Shape({ kind, size = 16 }: { kind: SignalKind; size?: number }) {
  const surface = useSurface();
  const colour = surface[kind];
  return (
    <Svg width={size} height={size} viewBox="0 0 16 16" style={{ flexShrink: 0 }} aria-hidden>
      {kind === 'caution' && <Path d="M8 1.2 15.4 14.6H.6z" fill={colour} />}
      {kind === 'refused' && (
        <>
          <Rect x="1" y="1" width="14" height="14" fill={colour} />
          <Path d="M3 11.5 11.5 3l1.9 1.9-8.5 8.5z" fill={surface.ground} />
        </>
      )}
      {kind === 'done' && <Path d="M0 4.5h12.4L16 8l-3.6 3.5H0z" fill={colour} />}
      {kind === 'cold' && <Path d="M8 .8 15.2 8 8 15.2.8 8z" fill={colour} />}
      {kind === 'quiet' && <Rect x="2" y="7" width="12" height="2" fill={colour} />}
    </Svg>
  );
}

/** A signal: its shape and its words in its colour. */
export function Signal({ kind, text, size = 'small' }: { kind: SignalKind; text: string; size?: TxtKind }) {
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6, flexShrink: 1 }}>
      <View style={{ flexShrink: 0 }}>
        <Shape kind={kind} size={size === 'small' ? 14 : 20} />
      </View>
      <Text kind={size} colour={kind} style={{ flexShrink: 1 }}>
        {text}
      </Text>
    </View>
  );
}
