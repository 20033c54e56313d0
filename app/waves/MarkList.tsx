import { View } from 'react-native';
import { Checkbox, Text, useSurface } from '../ui/index.ts';

export interface Markable {
  id: string;
  title: string;
  about: string;
}

/** A list of which some are marked, by touch, tab and space. */
export function MarkList({
  entries,
  marked,
  onMark,
}: {
  entries: Markable[];
  marked: ReadonlySet<string>;
  onMark: (marked: ReadonlySet<string>) => void;
}) {
  const surface = useSurface();
  const toggle = (id: string) => {
    const next = new Set(marked);
    if (!next.delete(id)) next.add(id);
    onMark(next);
  };
  return (
    <View style={{ borderTopWidth: 1, borderColor: surface.line }}>
      {entries.map(({ id, title, about }) => (
        <View
          key={id}
          style={{
            flexDirection: 'row',
            alignItems: 'center',
            justifyContent: 'space-between',
            gap: 12,
            minHeight: 44,
            borderBottomWidth: 1,
            borderColor: surface.line,
            backgroundColor: marked.has(id) ? surface.chosen : surface.raised,
          }}
        >
          <Checkbox shown label={title} checked={marked.has(id)} onPress={() => toggle(id)} />
          <Text kind="small" colour="quiet" lines={1} style={{ flexShrink: 1, paddingRight: 12 }}>
            {about}
          </Text>
        </View>
      ))}
    </View>
  );
}
