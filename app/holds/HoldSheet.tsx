import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { stages, type Stage } from '@hand-relay/core/deciding/holds';
import { api } from '../state/index.ts';
import { ReasonSheet } from '../shell/index.ts';
import { Stops } from './Stops.tsx';

/** Holds an order by hand: why, and what is stopped. */
export function HoldSheet({ order, onClose }: { order: string; onClose: () => void }) {
  const { t } = useTranslation();
  const [hold, { isLoading, error }] = api.useHoldOrderMutation();
  const [stops, setStops] = useState<Stage[]>([...stages]);
  return (
    <ReasonSheet
      title={t('hold.put')}
      text={t('hold.putText')}
      busy={isLoading}
      error={error}
      onClose={onClose}
      onDo={(reason) => {
        if (stops.length > 0) void hold({ id: order, reason, stops }).then((done) => done.data && onClose());
      }}
    >
      <Stops value={stops} onChange={setStops} />
    </ReasonSheet>
  );
}
