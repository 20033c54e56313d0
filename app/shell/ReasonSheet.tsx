import { useState, type ReactNode } from 'react';
import { useTranslation } from 'react-i18next';
import { troubleOf, words } from '../state/index.ts';
import { Column, Failed, Field, Button, Sheet, Text } from '../ui/index.ts';

const LEAST = 3;

/** Asks why, and does it once something is said. */
export function ReasonSheet({
  title,
  text,
  kind = 'danger',
  busy,
  error,
  onDo,
  onClose,
  children,
}: {
  title: string;
  text: string;
  kind?: 'act' | 'danger';
  busy: boolean;
  error: unknown;
  onDo: (reason: string) => void;
  onClose: () => void;
  /** What else is asked. */
  children?: ReactNode;
}) {
  const { t } = useTranslation();
  const [reason, setReason] = useState('');
  const [asked, setAsked] = useState(false);
  const short = reason.trim().length < LEAST;
  const go = () => {
    setAsked(true);
    if (!short) onDo(reason.trim());
  };
  return (
    <Sheet
      title={title}
      onClose={onClose}
      keys={
        <>
          <Button title={t('release.cancel')} onPress={onClose} />
          <Button kind={kind} title={title} busy={busy} onPress={go} />
        </>
      }
    >
      <Column gap={12}>
        <Text>{text}</Text>
        <Field
          focus
          label={t('order.reason')}
          value={reason}
          onChange={setReason}
          onSubmit={go}
          error={asked && short ? t('order.reasonNeeded') : undefined}
        />
        {children}
        {error !== undefined && <Failed text={words(troubleOf(error))} />}
      </Column>
    </Sheet>
  );
}
