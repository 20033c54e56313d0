import { useRef, useState } from 'react';
import { Pressable, ScrollView, useWindowDimensions, View } from 'react-native';
import { Icon } from './Icon.tsx';
import { Popover, type PopoverAt } from './Popover.tsx';
import { Text } from './Text.tsx';
import { useSurface, WIDE } from './theme.ts';

const EDGE = 8;
const ROW = 44;
/** Letters typed within this time, in milliseconds, are the beginning of one word. */
const TYPED_FOR = 800;

interface Option<T extends string> {
  value: T;
  title: string;
}

/**
 * One of many: a field that opens a list. Arrows, Home and End move, letters jump to what begins with them, Enter or a
 * tap chooses, Escape and a tap beside leave it as it was.
 */
export function Picker<T extends string>({
  label,
  options,
  value,
  onChange,
  disabled = false,
}: {
  label: string;
  options: Option<T>[];
  value: T;
  onChange: (value: T) => void;
  disabled?: boolean;
}) {
  const surface = useSurface();
  const { width, height } = useWindowDimensions();
  const field = useRef<View>(null);
  const [at, setAt] = useState<PopoverAt | null>(null);
  const open = () => {
    if (disabled) return;
    const box = (field.current as unknown as HTMLElement).getBoundingClientRect();
    const wanted = Math.max(box.width, 200);
    const left = Math.max(EDGE, Math.min(box.left, width - wanted - EDGE));
    const below = height - box.bottom - EDGE;
    const above = box.top - EDGE;
    setAt(
      below >= Math.min(above, options.length * ROW)
        ? { left, width: wanted, top: box.bottom + 2, maxHeight: below }
        : { left, width: wanted, bottom: height - box.top + 2, maxHeight: above },
    );
  };
  const title = options.find((o) => o.value === value)?.title ?? '';
  return (
    <View style={{ maxWidth: '100%' }}>
      <Pressable
        ref={field}
        role="combobox"
        aria-label={label}
        aria-expanded={at !== null}
        aria-disabled={disabled}
        disabled={disabled}
        onPress={open}
        {...({
          'aria-haspopup': 'listbox',
          onKeyDown: (event: { key: string; preventDefault(): void }) => {
            if (!['ArrowDown', 'ArrowUp', ' ', 'Enter'].includes(event.key)) return;
            event.preventDefault();
            open();
          },
        } as object)}
        style={{
          height: ROW,
          minWidth: 96,
          maxWidth: '100%',
          borderRadius: 4,
          borderWidth: 1,
          borderColor: surface.quiet,
          backgroundColor: surface.raised,
          opacity: disabled ? 0.5 : 1,
          paddingHorizontal: 12,
          flexDirection: 'row',
          alignItems: 'center',
          justifyContent: 'space-between',
          gap: 8,
        }}
      >
        <Text lines={1} style={{ flexShrink: 1 }}>
          {title}
        </Text>
        <Icon name="chevron-down" size={20} color={surface.ink} />
      </Pressable>
      {at && (
        <List
          label={label}
          options={options}
          value={value}
          at={at}
          onChoose={(chosen) => {
            setAt(null);
            if (chosen !== value) onChange(chosen);
          }}
          onClose={() => setAt(null)}
        />
      )}
    </View>
  );
}

function List<T extends string>({
  label,
  options,
  value,
  at,
  onChoose,
  onClose,
}: {
  label: string;
  options: Option<T>[];
  value: T;
  at: PopoverAt;
  onChoose: (value: T) => void;
  onClose: () => void;
}) {
  const surface = useSurface();
  const wide = useWindowDimensions().width >= WIDE;
  const rows = useRef<(HTMLElement | null)[]>([]);
  const typed = useRef({ text: '', since: 0 });
  const chosen = Math.max(
    0,
    options.findIndex((o) => o.value === value),
  );
  const onKey = (event: { key: string; timeStamp: number; preventDefault(): void; stopPropagation(): void }) => {
    const here = rows.current.findIndex((row) => row === document.activeElement);
    const goTo = (index: number) => {
      event.preventDefault();
      event.stopPropagation();
      rows.current[Math.max(0, Math.min(options.length - 1, index))]?.focus();
    };
    if (event.key === 'ArrowDown') goTo(here + 1);
    else if (event.key === 'ArrowUp') goTo(here - 1);
    else if (event.key === 'Home') goTo(0);
    else if (event.key === 'End') goTo(options.length - 1);
    else if ((event.key === 'Enter' || event.key === ' ') && here >= 0) {
      event.preventDefault();
      event.stopPropagation();
      onChoose(options[here]!.value);
    } else if (event.key.length === 1) {
      const goesOn = event.timeStamp - typed.current.since < TYPED_FOR;
      const text = ((goesOn ? typed.current.text : '') + event.key).toLocaleLowerCase();
      typed.current = { text, since: event.timeStamp };
      const found = options.findIndex((o) => o.title.toLocaleLowerCase().startsWith(text));
      if (found >= 0) goTo(found);
      else event.stopPropagation();
    }
  };
  return (
    <Popover at={at} onClose={onClose} onShow={() => holdFocus(() => rows.current[chosen])}>
      <ScrollView style={{ flexShrink: 1 }} {...({ dataSet: { surface: surface.name } } as object)}>
        <View
          {...({ role: 'listbox', 'aria-label': label, onKeyDownCapture: onKey } as object)}
          style={{ paddingVertical: 4 }}
        >
          {options.map((o, i) => (
            <Pressable
              key={o.value}
              ref={(row) => {
                rows.current[i] = row as unknown as HTMLElement | null;
              }}
              role="option"
              tabIndex={i === chosen ? 0 : -1}
              aria-selected={o.value === value}
              aria-label={o.title}
              onPress={() => onChoose(o.value)}
              style={{
                minHeight: wide ? 36 : 52,
                paddingHorizontal: 12,
                paddingVertical: 6,
                justifyContent: 'center',
                backgroundColor: o.value === value ? surface.chosen : 'transparent',
              }}
            >
              <Text kind={o.value === value ? 'strong' : 'body'}>{o.title}</Text>
            </Pressable>
          ))}
        </View>
      </ScrollView>
    </Popover>
  );
}

/**
 * A dialog below keeps the focus until it knows that another is above it, some frames later. Who has moved on in the list
 * meanwhile stays where they are.
 */
function holdFocus(row: () => HTMLElement | null | undefined, frames = 30): void {
  const element = row();
  const inList = element?.parentElement?.contains(document.activeElement) ?? false;
  if (!inList) element?.focus();
  else if (frames < 25) return;
  if (frames > 0) requestAnimationFrame(() => holdFocus(row, frames - 1));
}
