import { useEffect, useRef, useState, type ReactNode } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { Row } from './Box.tsx';
import { Button } from './Button.tsx';
import { useSurface } from './theme.ts';
import { Text } from './Text.tsx';

/** A place for files: dropped on it, or chosen. */
export function DropPlace({
  title,
  text,
  accept,
  onFiles,
  many = false,
  children,
}: {
  title: string;
  text: string;
  /** As the attribute of a file input. */
  accept: string;
  onFiles: (files: File[]) => void;
  /** Whether several may come at once; else the first counts. */
  many?: boolean;
  /** Keys beside the one that chooses. */
  children?: ReactNode;
}) {
  const { t } = useTranslation();
  const surface = useSurface();
  const place = useRef<View>(null);
  const [over, setOver] = useState(false);
  const take = (list: FileList | null | undefined) => {
    const files = [...(list ?? [])];
    if (files.length > 0) onFiles(many ? files : files.slice(0, 1));
  };
  const latest = useRef(take);
  useEffect(() => {
    latest.current = take;
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
      latest.current(event.dataTransfer?.files);
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
    input.multiple = many;
    input.onchange = () => take(input.files);
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
        <Button kind="act" title={t(many ? 'file.chooseMany' : 'file.choose')} onPress={choose} />
        {children}
      </Row>
    </View>
  );
}
