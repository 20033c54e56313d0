import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import type { RunSummary, WaveDetail, WaveSummary } from '@hand-relay/contract';
import { api, notify, troubleOf, useAppDispatch, words } from '../state/index.ts';
import { distance } from '../text/index.ts';
import { Failed, Field, Button, Sheet, Text } from '../ui/index.ts';
import { MarkList, type Markable } from './MarkList.tsx';

/** Makes a wave of its own out of orders of a gathering wave, or out of runs of a planned one. */
export function SplitSheet({
  wave,
  orders,
  runs,
  onClose,
}: {
  wave: WaveSummary;
  orders: WaveDetail['orders'];
  runs: RunSummary[];
  onClose: () => void;
}) {
  const { t } = useTranslation();
  const router = useRouter();
  const send = useAppDispatch();
  const [split, { error, isLoading }] = api.useSplitWaveMutation();
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const [search, setSearch] = useState('');
  const byRuns = wave.state === 'planned';
  const entries: Markable[] = byRuns
    ? runs.map((r) => ({
        id: r.id,
        title: `${r.number} · ${r.callSign}`,
        about: `${t('unit.orders', { count: r.orders })} · ${t('unit.stops', { count: r.stops })} · ${distance(r.metres)}`,
      }))
    : orders.map((o) => ({
        id: o.id,
        title: o.number,
        about: `${o.customer} · ${t('unit.units', { count: o.units })}`,
      }));
  const wanted = search.trim().toLowerCase();
  const shown = entries.filter((e) => `${e.title} ${e.about}`.toLowerCase().includes(wanted));
  const go = async () => {
    const ids = [...marked];
    const done = await split({ id: wave.id, orders: byRuns ? [] : ids, runs: byRuns ? ids : [] });
    if (!done.data) return;
    const made = done.data;
    send(
      notify({
        kind: 'done',
        text: t('split.done', { from: wave.number, number: made.number }),
        // Merging planned waves would undo their plans: there the way back is by hand.
        ...(byRuns ? {} : { undo: { name: 'mergeWaves', id: wave.id, body: { waves: [made.wave] } } }),
      }),
    );
    onClose();
    router.navigate(`/waves/${made.wave}`);
  };
  return (
    <Sheet
      title={t('split.title', { number: wave.number })}
      onClose={onClose}
      keys={
        <>
          <Button title={t('release.cancel')} onPress={onClose} />
          <Button
            kind="act"
            title={t(byRuns ? 'split.runs' : 'split.orders', { count: marked.size })}
            disabled={marked.size === 0 || marked.size >= entries.length}
            busy={isLoading}
            onPress={() => void go()}
          />
        </>
      }
    >
      <Text colour="quiet">{t(byRuns ? 'split.aboutRuns' : 'split.aboutOrders')}</Text>
      {entries.length > 8 && <Field label={t('split.find')} value={search} onChange={setSearch} />}
      {error && <Failed text={words(troubleOf(error))} />}
      <MarkList entries={shown.slice(0, 200)} marked={marked} onMark={setMarked} />
    </Sheet>
  );
}
