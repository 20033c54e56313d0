import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { TextInput, View } from 'react-native';
import { useTranslation } from 'react-i18next';
import { remember, remembered } from '../deviceCache/index.ts';
import { quietMs, scannerHere, useScans, withoutPrefix } from './keys/index.ts';
import { Button } from './Button.tsx';
import { Icon } from './Icon.tsx';
import { fonts, useNarrow, useSurface } from './theme.ts';

/** Read only where a camera is asked for. */
const CameraStrip = lazy(() => import('./camera/CameraStrip.tsx'));
const hasCamera = () => typeof navigator !== 'undefined' && !!navigator.mediaDevices?.getUserMedia;

/** A single character typed into the field is a code only after this long: a person may be about to type the next. */
const ALONE_MS = 1_500;

/** Without scrolling to it: where letters are very large, what is read lies above. */
const focusIn = (field: TextInput | null) => (field as unknown as HTMLElement | null)?.focus({ preventScroll: true });

/**
 * A field for codes. A scanner that types is heard wherever the focus is; a person types and presses Enter. The field
 * takes the focus when it is shown and has it back after each code. On the floor a camera reads codes as well, as long as
 * it is wanted.
 */
export function ScanField({
  label,
  onCode,
  disabled = false,
  size = 'floor',
}: {
  label: string;
  onCode: (text: string) => void;
  disabled?: boolean;
  size?: 'floor' | 'desk';
}) {
  const surface = useSurface();
  const { t } = useTranslation();
  const [text, setText] = useState('');
  const field = useRef<TextInput>(null);
  const narrow = useNarrow();
  const [camera, setCamera] = useState(() => size === 'floor' && hasCamera() && remembered('camera') === 'on');
  const latest = useRef<(code: string) => void>(() => undefined);
  const take = (code: string) => {
    const bare = withoutPrefix(scannerHere(), code.trim());
    if (disabled || bare === '') return;
    setText('');
    onCode(bare);
    focusIn(field.current);
  };
  useEffect(() => {
    latest.current = take;
  });
  useScans(take, { enabled: !disabled });
  const typedAt = useRef({ at: -Infinity, fast: true });
  useEffect(() => {
    // A scanner that sends nothing at the end of a code, while the field has the focus. One that stops to think is a person.
    const scanner = scannerHere();
    if (scanner.ends !== 'pause' || text === '' || !typedAt.current.fast) return undefined;
    const timer = setTimeout(() => latest.current(text), text.length === 1 ? ALONE_MS : quietMs(scanner));
    return () => clearTimeout(timer);
  }, [text]);
  useEffect(() => {
    // Without the virtual keyboard: it would cover the card. A tap on the field still opens it.
    const touch = typeof matchMedia !== 'undefined' && matchMedia('(pointer: coarse)').matches;
    if (!touch) focusIn(field.current);
  }, [label]);
  const height = size === 'floor' ? 60 : 44;
  const line = (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 8,
        borderWidth: 2,
        borderColor: surface.quiet,
        borderRadius: 4,
        backgroundColor: surface.raised,
        paddingLeft: 12,
      }}
    >
      {!narrow && <Icon name="barcode-scan" size={size === 'floor' ? 26 : 20} color={surface.quiet} />}
      <TextInput
        ref={field}
        value={text}
        onChangeText={setText}
        onSubmitEditing={() => take(text)}
        onKeyPress={(event) => {
          // Some scanners end a code with Tab; a person who goes back has changed their mind.
          const { key, shiftKey, timeStamp } = event.nativeEvent as unknown as KeyboardEvent;
          const gap = timeStamp - typedAt.current.at;
          typedAt.current = {
            at: timeStamp,
            fast: text === '' || (typedAt.current.fast && gap <= quietMs(scannerHere())),
          };
          if (key !== 'Tab' || shiftKey || text.trim() === '') return;
          event.preventDefault();
          take(text);
        }}
        submitBehavior="submit"
        placeholder={label}
        aria-label={label}
        placeholderTextColor={surface.quiet}
        autoCapitalize="characters"
        autoCorrect={false}
        autoComplete="off"
        editable={!disabled}
        style={{
          flex: 1,
          minWidth: 0,
          height,
          color: surface.ink,
          fontFamily: fonts.medium,
          fontSize: size === 'floor' ? 20 : 16,
          outlineWidth: 0,
        }}
      />
      {text !== '' && (
        <Button title={t('scan.take')} size={size === 'floor' ? 'desk' : 'small'} onPress={() => take(text)} />
      )}
      {text === '' && size === 'floor' && hasCamera() && (
        <Button
          title={t('scan.camera.key')}
          icon="camera-outline"
          iconOnly
          size="desk"
          pressed={camera}
          onPress={() => {
            remember('camera', camera ? 'off' : 'on');
            setCamera(!camera);
          }}
        />
      )}
    </View>
  );
  if (!camera) return line;
  return (
    <View style={{ gap: 8 }}>
      <Suspense fallback={null}>
        <CameraStrip onCode={take} />
      </Suspense>
      {line}
    </View>
  );
}
