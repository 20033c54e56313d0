import { useSurface, fonts } from './theme.ts';

/** The arrow of a closed list, in the colour of its surface. */
const arrow = (colour: string) =>
  `url("data:image/svg+xml,${encodeURIComponent(`<svg xmlns='http://www.w3.org/2000/svg' width='12' height='8'><path d='M1 1l5 5 5-5' fill='none' stroke='${colour}' stroke-width='2'/></svg>`)}")`;

/** One of many, as the browser's own list, drawn as a field: keyboard and screen reader know it. */
export function Picker<T extends string>({
  label,
  options,
  value,
  onChange,
  disabled = false,
}: {
  label: string;
  options: { value: T; title: string }[];
  value: T;
  onChange: (value: T) => void;
  disabled?: boolean;
}) {
  const surface = useSurface();
  return (
    <select
      aria-label={label}
      value={value}
      disabled={disabled}
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
        padding: '0 32px 0 12px',
        appearance: 'none',
        backgroundImage: arrow(surface.ink),
        backgroundRepeat: 'no-repeat',
        backgroundPosition: 'right 12px center',
        textOverflow: 'ellipsis',
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
