import { useRouter } from 'expo-router';
import { useTranslation } from 'react-i18next';
import type { DeskLine } from '@hand-relay/contract';
import { api, notify, troubleOf, useAppDispatch, useMay, words } from '../state/index.ts';
import { Button, Column, Failed, Row, Text } from '../ui/index.ts';
import { releaseOfLines } from './lines.ts';

/** What is done with marked lines: reserved, freed, released. Each act is undone as one. */
export function LineActs({
  chosen,
  all,
  onDone,
}: {
  chosen: readonly DeskLine[];
  all: readonly DeskLine[];
  onDone: () => void;
}) {
  const { t } = useTranslation();
  const router = useRouter();
  const send = useAppDispatch();
  const [reserve, reserving] = api.useReserveLinesMutation();
  const [release, releasing] = api.useReleaseMutation();
  const [mayReserve, mayRelease] = [useMay('orders.reserve'), useMay('orders.release')];
  const loose = chosen.filter((l) => l.reserved < l.open);
  const kept = chosen.filter((l) => l.reserved > 0);
  const open = chosen.filter((l) => l.held === '');
  const set = async (lines: readonly DeskLine[], unitsOf: (l: DeskLine) => number) => {
    const done = await reserve({ lines: lines.map((l) => ({ line: l.id, units: unitsOf(l) })) });
    if (!done.data) return;
    const units = done.data.lines.reduce((n, l) => n + l.after - l.before, 0);
    const short = lines.reduce((n, l) => n + unitsOf(l), 0) - done.data.lines.reduce((n, l) => n + l.after, 0);
    send(
      notify({
        kind: short > 0 ? 'caution' : 'done',
        text: [
          t(units < 0 ? 'lines.freed' : 'lines.kept', { units: t('unit.units', { count: Math.abs(units) }) }),
          short > 0 && t('lines.short', { units: t('unit.units', { count: short }) }),
        ]
          .filter(Boolean)
          .join(' '),
        undo: {
          name: 'reserveLines',
          body: { lines: done.data.lines.map(({ line, before }) => ({ line, units: before })) },
        },
      }),
    );
    onDone();
  };
  const go = async () => {
    const done = await release(releaseOfLines(open, all));
    if (!done.data) return;
    const { wave, number, given, preview } = done.data;
    send(
      notify({
        kind: 'done',
        text: t('release.done', { number, orders: t('unit.orders', { count: preview.orders }) }),
        about: wave,
        undo: { name: 'unrelease', body: { lines: given, wave } },
      }),
    );
    router.navigate(`/waves/${wave}`);
  };
  const error = reserving.error ?? releasing.error;
  const busy = reserving.isLoading || releasing.isLoading;
  return (
    <Column gap={8}>
      {error && <Failed text={words(troubleOf(error))} />}
      <Row gap={8} style={{ justifyContent: 'flex-end' }}>
        <Text colour="quiet">{t('lines.marked', { count: chosen.length })}</Text>
        {mayReserve && kept.length > 0 && (
          <Button
            title={t('lines.freeKey', { count: kept.length })}
            disabled={busy}
            onPress={() => void set(kept, () => 0)}
          />
        )}
        {mayReserve && loose.length > 0 && (
          <Button
            title={t('lines.keepKey', { count: loose.length })}
            disabled={busy}
            onPress={() => void set(loose, (l) => l.open)}
          />
        )}
        {mayRelease && open.length > 0 && (
          <Button
            kind="act"
            title={t('lines.releaseKey', { count: open.length })}
            busy={releasing.isLoading}
            disabled={busy}
            onPress={() => void go()}
          />
        )}
      </Row>
    </Column>
  );
}
