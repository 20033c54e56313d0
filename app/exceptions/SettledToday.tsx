import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import type { ExceptionRow } from '@hand-relay/contract';
import { Button } from '../ui/index.ts';
import { ExceptionCard } from './ExceptionCard.tsx';

/** What was settled today, folded until somebody asks for it. */
export function SettledToday({ settled }: { settled: ExceptionRow[] }) {
  const { t } = useTranslation();
  const [open, setOpen] = useState(false);
  if (settled.length === 0) return null;
  return (
    <>
      <Button
        size="small"
        icon={open ? 'chevron-down' : 'chevron-right'}
        title={t('exceptions.settledToday', { count: settled.length })}
        onPress={() => setOpen(!open)}
      />
      {open && settled.map((e) => <ExceptionCard key={e.id} exception={e} />)}
    </>
  );
}
