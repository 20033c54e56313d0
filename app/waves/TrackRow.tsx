import type { ReactNode } from 'react';
import { View } from 'react-native';
import { useHandoffRow, useSurface } from '../ui/index.ts';

const HEAD = 262;
const RIGHT = 108;

/** A row of the track: what it is about, the stretch of time, and its figure; one below the other on a phone. */
export function TrackRow({
  wide,
  head,
  right,
  children,
  height,
  label,
  role = 'listitem',
}: {
  wide: boolean;
  head?: ReactNode;
  /** Its figure; without one the stretch of time goes to the edge. */
  right?: ReactNode;
  children: ReactNode;
  height: number;
  label?: string;
  role?: 'listitem' | 'group';
}) {
  const surface = useSurface();
  const { edgeStyle, within } = useHandoffRow();
  return (
    <View
      {...(label ? { role, 'aria-label': label } : {})}
      style={{
        flexDirection: wide ? 'row' : 'column',
        alignItems: wide ? 'center' : 'stretch',
        columnGap: 12,
        minHeight: height,
        borderBottomWidth: label ? 1 : 0,
        borderColor: surface.line,
        ...edgeStyle,
      }}
    >
      {within(
        <>
          {(wide || head) && <View style={wide ? { width: HEAD } : { paddingTop: 8 }}>{head}</View>}
          <View style={wide ? { flex: 1, minWidth: 0 } : {}}>{children}</View>
          {wide && right !== undefined && <View style={{ width: RIGHT, alignItems: 'flex-end' }}>{right}</View>}
        </>,
      )}
    </View>
  );
}
