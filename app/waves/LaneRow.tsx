import type { ReactNode } from 'react';
import { View } from 'react-native';
import { LinkBox, useHandoffRow, useSurface } from '../ui/index.ts';

/** A lane's head beside its track where there is room, else above it. What is marked stands before both. */
export function LaneRow({
  wide,
  head,
  children,
  onOpen,
  href,
  label,
  before,
  here = false,
}: {
  wide: boolean;
  head: ReactNode;
  children: ReactNode;
  onOpen?: () => void;
  /** The address that it opens. */
  href?: string;
  label?: string;
  before?: ReactNode;
  here?: boolean;
}) {
  const surface = useSurface();
  const { edgeStyle, within } = useHandoffRow();
  const inside = {
    flex: 1,
    minWidth: 0,
    flexDirection: wide ? ('row' as const) : ('column' as const),
    alignItems: wide ? ('center' as const) : ('stretch' as const),
    columnGap: 16,
  };
  const parts = within(
    <>
      {(wide || head) && <View style={wide ? { width: 360 } : {}}>{head}</View>}
      <View style={wide ? { flex: 1, minWidth: 0 } : {}}>{children}</View>
    </>,
  );
  return (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        borderBottomWidth: head ? 1 : 0,
        borderColor: surface.line,
        borderLeftWidth: 3,
        borderLeftColor: here ? surface.ink : 'transparent',
        backgroundColor: here ? surface.chosen : 'transparent',
        ...edgeStyle,
      }}
    >
      <View style={{ width: 44 }}>{before}</View>
      {onOpen && href && label ? (
        <LinkBox href={href} label={label} onOpen={onOpen} style={inside}>
          {parts}
        </LinkBox>
      ) : (
        <View style={inside}>{parts}</View>
      )}
    </View>
  );
}
