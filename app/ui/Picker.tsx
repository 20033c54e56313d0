import { useSurface, fonts } from './theme.ts';

/** One of many, as the browser's own list: keyboard and screen reader know it. */
export function Picker<T extends string>({
  label,
  options,
  value,
  onChange,
}: {
  label: string;
  options: { value: T; title: string }[];
  value: T;
  onChange: (value: T) => void;
}) {
  const surface = useSurface();
  return (
    <select
      aria-label={label}
      value={value}
      onChange={(event) => onChange(event.target.value as T)}
      style={{
        height: 44,
        minWidth: 96,
        maxWidth: '100%',
        borderRadius: 4,
        border: `1px solid ${surface.quiet}`,
        backgroundColor: surface.raised,
        color: surface.ink,
        fontFamily: fonts.text,
        fontSize: 16,
        padding: '0 8px',
      }}
    >
      {options.map((o) => (
        <option key={o.value} value={o.value}>
          {o.title}
        </option>
      ))}
    </select>
  );
}
