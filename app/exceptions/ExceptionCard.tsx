import { Link } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { ExceptionAct, ExceptionRow } from '@hand-relay/contract';
import { addressOf, api, notify, troubleOf, useMay, useMe, useNow, useAppDispatch, words } from '../state/index.ts';
import { ago, clock, number, relative, timeOf } from '../text/index.ts';
import { Failed, Illustration, Button, Row, Shape, Text, useSurface } from '../ui/index.ts';
import { ReasonSheet } from '../shell/index.ts';
import { reasonOf, titleOf } from './exceptionWords.ts';

/** Where each kind that has a place of its own is dealt with. */
function linkOf({ kind, order }: ExceptionRow): string | null {
  if (kind === 'count') return '/desk/counts';
  if (kind === 'surplus') return '/desk/surplus';
  return order ? `/desk/orders/${order.id}` : null;
}

/** One thing that waits for somebody: what, where, who, what it stops, and the keys that end it. */
export function ExceptionCard({ exception, here = false }: { exception: ExceptionRow; here?: boolean }) {
  const { t } = useTranslation();
  const surface = useSurface();
  const me = useMe();
  const now = useNow();
  const { order, settled, note, run, lot, count, pictures } = exception;
  const zone = me.site.timeZone;
  const stops = order && [order.number, order.customer].join(', ');
  const leaves = order?.leavesAt
    ? [
        order.departure,
        t('exceptions.leaves', { time: timeOf(order.leavesAt, zone, now), in: relative(order.leavesAt, now) }),
      ]
    : [];
  const about = [
    reasonOf(exception),
    note,
    lot && t('floor.lot', { lot }),
    count && t(`exceptions.count.${count}`),
    run && exception.kind !== 'lost' && t('counts.desk.run', { run: run.number }),
  ];
  return (
    <View
      role="article"
      aria-label={titleOf(exception)}
      aria-current={here ? 'true' : undefined}
      style={{
        borderWidth: 1,
        borderLeftWidth: 4,
        borderColor: surface.line,
        borderLeftColor: settled ? surface.done : surface.caution,
        backgroundColor: here ? surface.chosen : surface.raised,
        borderRadius: 4,
        padding: 12,
        gap: 6,
      }}
    >
      <View style={{ flexDirection: 'row', gap: 8, alignItems: 'flex-start' }}>
        <View style={{ paddingTop: 4 }}>
          <Shape kind={settled ? 'done' : 'caution'} size={16} />
        </View>
        <View style={{ flex: 1, minWidth: 0, gap: 2 }}>
          <Text kind="strong">{titleOf(exception)}</Text>
          <Text kind="small" colour="quiet">
            {about.filter(Boolean).join(' · ')}
          </Text>
          {order && (
            <Link href={linkOf(exception) as never} style={{ minHeight: 24 }}>
              <Text kind="small" style={{ textDecorationLine: 'underline' }}>
                {[stops, ...leaves].filter(Boolean).join(' · ')}
              </Text>
            </Link>
          )}
          <Text kind="small" colour="quiet">
            {settled
              ? t('exceptions.settledBy', {
                  how: t(`exceptions.how.${settled.how}`),
                  by: settled.by,
                  time: clock(settled.at, zone),
                  note: settled.note ? `: ${settled.note}` : '',
                })
              : [exception.by, ago(exception.at, now), clock(exception.at, zone)].filter(Boolean).join(' · ')}
          </Text>
        </View>
        {pictures.slice(0, 1).map((name) => (
          <Illustration
            key={name}
            uri={addressOf({ name: 'picture', id: name.replace(/^own:/, '') })}
            words={t('exceptions.photo')}
            style={{ width: 64, height: 64 }}
          />
        ))}
      </View>
      {!settled && <Acts exception={exception} />}
    </View>
  );
}

/** Kinds that are settled from this list; the others where they belong. */
const ACTED = new Set(['short', 'elsewhere', 'out', 'lost', 'cart']);

function Acts({ exception }: { exception: ExceptionRow }) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const { id, kind, open, order, item, place, count } = exception;
  const [act, { isLoading, error, reset }] = api.useActOnExceptionMutation();
  const [dismissing, setDismissing] = useState(false);
  const [mayRelease, mayCancel, mayCount] = [useMay('orders.release'), useMay('orders.cancel'), useMay('runs.arrange')];
  const mayAct = mayRelease || mayCancel || mayCount;
  const go = async (what: ExceptionAct, note = '') => {
    const done = await act({ id, act: what, note });
    if (!done.data) return;
    setDismissing(false);
    send(notify({ kind: 'done', text: t(`exceptions.done.${what}`, { order: order?.number, place }) }));
  };
  if (!ACTED.has(kind)) {
    const link = linkOf(exception);
    if (kind === 'put-away' || !link) return null;
    return (
      <Link href={link} style={{ minHeight: 32 }}>
        <Text kind="strong" style={{ textDecorationLine: 'underline' }}>
          {t(`exceptions.decide.${kind === 'count' ? 'count' : 'surplus'}`)}
        </Text>
      </Link>
    );
  }
  if (!mayAct) return null;
  const missing = (kind === 'short' || kind === 'out') && open > 0;
  const counts =
    mayCount && item !== null && place !== '' && kind !== 'cart' && count !== 'asked' && count !== 'counted';
  return (
    <>
      {error && !dismissing && <Failed text={words(troubleOf(error))} />}
      <Row gap={4}>
        {missing && mayRelease && (
          <Button
            size="small"
            title={t('exceptions.act.release', { units: number(open) })}
            busy={isLoading}
            onPress={() => void go('release')}
          />
        )}
        {missing && mayCancel && (
          <Button
            size="small"
            title={t('exceptions.act.ship-short')}
            disabled={isLoading}
            onPress={() => void go('ship-short')}
          />
        )}
        {order && kind !== 'elsewhere' && (
          <Button
            size="small"
            title={t('exceptions.act.service')}
            disabled={isLoading}
            onPress={() => void go('service')}
          />
        )}
        {counts && (
          <Button
            size="small"
            title={t('exceptions.act.count')}
            disabled={isLoading}
            onPress={() => void go('count')}
          />
        )}
        <Button
          size="small"
          title={t('exceptions.act.dismiss')}
          disabled={isLoading}
          onPress={() => {
            reset();
            setDismissing(true);
          }}
        />
      </Row>
      {dismissing && (
        <ReasonSheet
          title={t('exceptions.act.dismiss')}
          text={titleOf(exception)}
          kind="act"
          busy={isLoading}
          error={error}
          onClose={() => setDismissing(false)}
          onDo={(note) => void go('dismiss', note)}
        />
      )}
    </>
  );
}
