import { View } from 'react-native';
import { Key } from './Key.tsx';
import { Txt } from './Txt.tsx';

/** One of a few: keys side by side, the chosen one pressed in. With `bare` the label is only read. */
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
      style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 4, flexShrink: 1 }}
    >
      {!bare && (
        <Txt kind="small" colour="quiet" style={{ marginRight: 4 }}>
          {label}
        </Txt>
      )}
      {options.map((o) => (
        <Key key={o.value} title={o.title} size="small" pressed={o.value === value} onPress={() => onChange(o.value)} />
      ))}
    </View>
  );
}
