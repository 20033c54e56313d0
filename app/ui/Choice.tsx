import { View } from 'react-native';
import { Button } from './Button.tsx';
import { Text } from './Text.tsx';

/** One of a few: a joined strip, the chosen one filled. With `bare` the label is only read. */
export function Choice<T extends string>({
  label,
  options,
  value,
  onChange,
  bare = false,
}: {
  label: string;
  options: { value: T; title: string }[];
  value: T;
  onChange: (value: T) => void;
  bare?: boolean;
}) {
  return (
    <View
      role="group"
      aria-label={label}
      style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8, flexShrink: 1 }}
    >
      {!bare && (
        <Text kind="small" colour="quiet">
          {label}
        </Text>
      )}
      {/* Each overlaps the hairline of the one before it, in a row and below it. */}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', flexShrink: 1, paddingLeft: 1, paddingTop: 1 }}>
        {options.map((o) => (
          <Button
            key={o.value}
            title={o.title}
            size="small"
            chosen={o.value === value}
            onPress={() => onChange(o.value)}
          />
        ))}
      </View>
    </View>
  );
}
