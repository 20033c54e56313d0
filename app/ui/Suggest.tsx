import { useId, useState } from 'react';
import { Pressable, View } from 'react-native';
import { Field, type FieldProps } from './Field.tsx';
import { Text } from './Text.tsx';
import { useSurface } from './theme.ts';

export interface Suggestion {
  key: string;
  title: string;
  detail: string;
  /** At the right, as a number that is free. */
  aside?: string | undefined;
}

/** A field that offers what matches: arrows choose, Enter or a tap takes, Escape puts the list away. */
export function Suggest({
  options,
  onPick,
  nothing,
  ...field
}: Pick<FieldProps, 'label' | 'value' | 'onChange' | 'error' | 'bare' | 'focus' | 'placeholder' | 'inputRef'> & {
  options: Suggestion[];
  onPick: (key: string) => void;
  /** Said where something was typed and nothing matches. */
  nothing: string | null;
}) {
  const surface = useSurface();
  const list = useId();
  const [open, setOpen] = useState(false);
  const [at, setAt] = useState(0);
  const here = Math.min(at, options.length - 1);
  const pick = (key: string) => {
    setOpen(false);
    onPick(key);
  };
  const onKey = (event: { key: string; preventDefault(): void; stopPropagation(): void }) => {
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      setOpen(true);
      setAt(Math.max(0, Math.min(options.length - 1, here + (event.key === 'ArrowDown' ? 1 : -1))));
    } else if (event.key === 'Escape' && open) {
      event.stopPropagation();
      setOpen(false);
    }
  };
  const leave = (event: { currentTarget: Node; relatedTarget: Node | null }) => {
    if (!event.currentTarget.contains(event.relatedTarget)) setOpen(false);
  };
  return (
    <View
      role="combobox"
      aria-expanded={open}
      {...({ 'aria-label': field.label, 'aria-controls': list, onKeyDownCapture: onKey, onBlur: leave } as object)}
    >
      <Field
        {...field}
        onFocus={() => setOpen(true)}
        onChange={(text) => {
          setOpen(true);
          setAt(0);
          field.onChange(text);
        }}
        onSubmit={() => open && options[here] && pick(options[here].key)}
      />
      {open && (options.length > 0 || nothing !== null) && (
        <View
          nativeID={list}
          {...({ role: 'listbox', 'aria-label': field.label } as object)}
          style={{ borderWidth: 1, borderColor: surface.quiet, borderTopWidth: 0, backgroundColor: surface.raised }}
        >
          {options.length === 0 && (
            <Text colour="quiet" style={{ padding: 10 }}>
              {nothing}
            </Text>
          )}
          {options.slice(0, 8).map((o, i) => (
            <Pressable
              key={o.key}
              role="option"
              tabIndex={-1}
              aria-selected={i === here}
              aria-label={[o.title, o.detail, o.aside].filter(Boolean).join(', ')}
              onPress={() => pick(o.key)}
              // A field that loses the focus would put the list away before the tap arrives.
              {...({ onMouseDown: (event: { preventDefault(): void }) => event.preventDefault() } as object)}
              style={{
                flexDirection: 'row',
                gap: 12,
                alignItems: 'baseline',
                minHeight: 44,
                paddingHorizontal: 12,
                paddingVertical: 8,
                backgroundColor: i === here ? surface.chosen : 'transparent',
              }}
            >
              <View style={{ flex: 1, minWidth: 0 }}>
                <Text kind="strong" lines={1}>
                  {o.title}
                </Text>
                <Text kind="small" colour="quiet" lines={1}>
                  {o.detail}
                </Text>
              </View>
              {o.aside && <Text kind="small">{o.aside}</Text>}
            </Pressable>
          ))}
        </View>
      )}
    </View>
  );
}
