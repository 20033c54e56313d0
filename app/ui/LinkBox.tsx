import type { ReactNode } from 'react';
import { Pressable, type GestureResponderEvent, type StyleProp, type ViewStyle } from 'react-native';

/** What a press on the web tells besides itself. */
type WebPress = GestureResponderEvent & Partial<Pick<MouseEvent, 'ctrlKey' | 'metaKey' | 'shiftKey'>>;

/**
 * A row, card or place that leads to an address: on the web a real link, so that its address can be copied and it
 * opens in a new tab or window by the browser's own ways; a plain press opens it here.
 *
 * @param href the address within the app, as `/waves/12`
 * @param here whether this is the place that is open
 */
export function LinkBox({
  href,
  label,
  onOpen,
  here = false,
  style,
  children,
}: {
  href: string;
  label: string;
  onOpen: () => void;
  here?: boolean;
  style?: StyleProp<ViewStyle>;
  children: ReactNode;
}) {
  const press = (event: WebPress) => {
    if (event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault?.();
    onOpen();
  };
  return (
    <Pressable
      role="link"
      {...({ href } as object)}
      aria-label={label}
      {...(here ? { 'aria-current': 'page' as const } : {})}
      onPress={press}
      style={style}
    >
      {children}
    </Pressable>
  );
}
