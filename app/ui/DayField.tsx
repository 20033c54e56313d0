import { View } from 'react-native';
import { Text } from './Text.tsx';
import { fonts, useSurface } from './theme.ts';

/** A day, as the browser's own field with its calendar: keyboard and screen reader know it. */
export function DayField({
  label,
  value,
  onChange,
  error,
  bare = false,
}: {
  label: string;
  /** ISO date, empty without one. */
  value: string;
  onChange: (day: string) => void;
  error?: string | undefined;
  /** The label is read and not shown. */
  bare?: boolean;
}) {
  const surface = useSurface();
  return (
    <View style={{ gap: 4 }}>
      {!bare && (
        <Text kind="label" colour="quiet">
          {label}
        </Text>
      )}
      <input
        type="date"
        aria-label={label}
        aria-invalid={Boolean(error)}
        value={value}
        onChange={(event) => onChange(event.target.value)}
        style={{
          height: 42,
          minWidth: 150,
          boxSizing: 'border-box',
          borderRadius: 4,
          border: `1px solid ${error ? surface.refused : surface.quiet}`,
          backgroundColor: surface.raised,
          color: surface.ink,
          colorScheme: surface.name === 'floor' ? 'dark' : 'light',
          fontFamily: fonts.text,
          fontSize: 16,
          padding: '0 12px',
        }}
      />
      {error && (
        <View role="alert">
          <Text kind="small" colour="refused">
            {error}
          </Text>
        </View>
      )}
    </View>
  );
}
