import { useEffect, useRef, useState, type ReactNode } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { Row } from './Box.tsx';
import { Button } from './Button.tsx';
import { useSurface } from './theme.ts';
import { Text } from './Text.tsx';

/** A place for a file: dropped on it, or chosen. */
export function DropPlace({
  title,
  text,
  accept,
  onFile,
  children,
}: {
  title: string;
  text: string;
  /** As the attribute of a file input. */
  accept: string;
  onFile: (file: File) => void;
  /** Keys beside the one that chooses. */
  children?: ReactNode;
}) {
  const { t } = useTranslation();
  const surface = useSurface();
  const place = useRef<View>(null);
  const [over, setOver] = useState(false);
  const latest = useRef(onFile);
  useEffect(() => {
    latest.current = onFile;
  });
  useEffect(() => {
    const element = place.current as unknown as HTMLElement | null;
    if (!element) return undefined;
    const stop = (event: DragEvent) => {
      event.preventDefault();
      setOver(event.type === 'dragover');
    };
    const drop = (event: DragEvent) => {
      stop(event);
      const file = event.dataTransfer?.files[0];
      if (file) latest.current(file);
    };
    element.addEventListener('dragover', stop);
    element.addEventListener('dragleave', stop);
    element.addEventListener('drop', drop);
    return () => {
      element.removeEventListener('dragover', stop);
      element.removeEventListener('dragleave', stop);
      element.removeEventListener('drop', drop);
    };
  }, []);
  const choose = () => {
    const input = document.createElement('input');
    input.type = 'file';
    input.accept = accept;
    input.onchange = () => input.files?.[0] && onFile(input.files[0]);
    input.click();
  };
  return (
    <View
      ref={place}
      testID="drop"
      style={{
        borderWidth: 2,
        borderStyle: 'dashed',
        borderColor: over ? surface.ink : surface.quiet,
        borderRadius: 4,
        padding: 32,
        gap: 12,
        alignItems: 'center',
        backgroundColor: over ? surface.chosen : 'transparent',
      }}
    >
      <Text kind="heading" align="center">
        {title}
      </Text>
      <Text colour="quiet" align="center">
        {text}
      </Text>
      <Row gap={8} style={{ justifyContent: 'center' }}>
        <Button kind="act" title={t('file.choose')} onPress={choose} />
        {children}
      </Row>
    </View>
  );
}
