import { Link } from 'expo-router';
import { ScrollView, View } from 'react-native';
import { number } from '../text/index.ts';
import { Text, useSurface } from '../ui/index.ts';

export interface Tab {
  key: string;
  title: string;
  href: string;
  /** What waits there; its square is there also when nothing does, so that nothing moves. */
  count?: number;
}

/** Where the row is wider than the screen, the place that is open is brought into it. */
const intoView = (view: View | null): void =>
  (view as unknown as HTMLElement | null)?.scrollIntoView?.({ block: 'nearest', inline: 'center' });

/** Places within a leg: text with a line under the one that is open. They are links, and no keys. */
export function Tabs({ label, tabs, at }: { label: string; tabs: Tab[]; at: string }) {
  const surface = useSurface();
  return (
    <ScrollView
      horizontal
      showsHorizontalScrollIndicator={false}
      style={{ flexGrow: 0 }}
      {...({ role: 'navigation', 'aria-label': label } as object)}
    >
      {tabs.map(({ key, title, href, count }) => (
        <Link
          key={key}
          href={href as never}
          {...(key === at ? { 'aria-current': 'page' as const } : {})}
          aria-label={count === undefined || count === 0 ? title : `${title}, ${count}`}
          style={{ textDecorationLine: 'none' }}
        >
          <View
            ref={key === at ? intoView : null}
            style={{
              minHeight: 44,
              flexDirection: 'row',
              alignItems: 'center',
              gap: 6,
              paddingHorizontal: 10,
              paddingTop: 4,
              borderBottomWidth: 4,
              borderColor: key === at ? surface.ink : 'transparent',
            }}
          >
            <Text kind="tab" colour={key === at ? 'ink' : 'quiet'}>
              {title}
            </Text>
            {count !== undefined && (
              <View
                style={{
                  minWidth: 22,
                  height: 22,
                  paddingHorizontal: 4,
                  alignItems: 'center',
                  justifyContent: 'center',
                  borderRadius: 4,
                  backgroundColor: count > 0 ? surface.chosen : 'transparent',
                }}
              >
                {count > 0 && <Text kind="label">{number(count)}</Text>}
              </View>
            )}
          </View>
        </Link>
      ))}
    </ScrollView>
  );
}
