import { useRef, useState, type ReactNode } from 'react';
import { ScrollView, useWindowDimensions, View } from 'react-native';
import { Button } from './Button.tsx';
import type { IconName } from './Icon.tsx';
import { Popover, type PopoverAt } from './Popover.tsx';
import { Text } from './Text.tsx';
import { useSurface } from './theme.ts';

const WIDTH = 300;
const EDGE = 8;

/** A key that opens a small panel below it, or at the foot of a phone; Escape and a tap beside put it away. */
export function Drop({
  title,
  label,
  set = false,
  icon = 'chevron-down',
  children,
}: {
  /** What the key says: the name, and what is chosen. */
  title: string;
  /** The panel's name. */
  label: string;
  /** Whether something is chosen in it. */
  set?: boolean;
  icon?: IconName;
  /** What it holds; a function gets the way to put it away. */
  children: ReactNode | ((close: () => void) => ReactNode);
}) {
  const surface = useSurface();
  const { width, height } = useWindowDimensions();
  const key = useRef<View>(null);
  const [at, setAt] = useState<PopoverAt | null>(null);
  const open = () => {
    const box = (key.current as unknown as HTMLElement).getBoundingClientRect();
    const top = box.bottom + 2;
    setAt({
      left: Math.max(EDGE, Math.min(box.left, width - WIDTH - EDGE)),
      top,
      width: WIDTH,
      maxHeight: height - top - EDGE,
    });
  };
  const close = () => setAt(null);
  return (
    <View ref={key}>
      <Button size="small" title={title} icon={icon} pressed={set} onPress={open} />
      {at && (
        <Popover at={at} onClose={close}>
          <View
            {...({ dataSet: { surface: surface.name } } as object)}
            role="dialog"
            aria-label={label}
            style={{ flexShrink: 1 }}
          >
            <ScrollView style={{ flexShrink: 1 }} contentContainerStyle={{ padding: 12, gap: 10 }}>
              <Text kind="label" colour="quiet">
                {label}
              </Text>
              {typeof children === 'function' ? children(close) : children}
            </ScrollView>
          </View>
        </Popover>
      )}
    </View>
  );
}
