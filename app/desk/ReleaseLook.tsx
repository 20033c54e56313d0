import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { ReleasePreview } from '@hand-relay/contract';
import { localDate } from '@hand-relay/core/calendar';
import { useMe } from '../state/index.ts';
import { clock, dayName, distance, duration, mass, number } from '../text/index.ts';
import { Column, Facts, Row, Signal, Text, type SignalKind } from '../ui/index.ts';

const SHOWN = 12;
const signals: Record<'made' | 'tight' | 'missed' | 'gone', SignalKind> = {
  made: 'done',
  tight: 'caution',
  missed: 'refused',
  gone: 'refused',
};

/** What a release would do: its sums, whether departures can be made, and what falls short. */
export function ReleaseLook({ look, now }: { look: ReleasePreview; now: number }) {
  const { t } = useTranslation();
  return (
    <>
      <Facts
        figures
        min={90}
        facts={[
          { name: t('release.orders'), value: number(look.orders) },
          { name: t('release.complete'), value: number(look.ordersComplete) },
          { name: t('release.lines'), value: number(look.lines) },
          { name: t('release.units'), value: number(look.units) },
          { name: t('release.weight'), value: mass(look.weightG) },
          {
            name: t('release.volume'),
            value: t('release.litres', { litres: number(Math.round(look.volumeCm3 / 1000)) }),
          },
          { name: t('release.cartons'), value: number(look.cartons) },
          { name: t('release.runs'), value: number(look.runs) },
          { name: t('release.walk'), value: distance(look.metres) },
          { name: t('release.work'), value: duration(look.seconds) },
        ]}
      />
      <Departures look={look} now={now} />
      {look.shorts.length === 0 ? (
        look.units > 0 && <Signal kind="done" text={t('release.allCovered')} size="body" />
      ) : (
        <Column gap={4}>
          <Signal kind="caution" text={t('release.shorts', { count: look.shorts.length })} size="body" />
          {look.shorts.slice(0, SHOWN).map((s) => (
            <Text key={`${s.order} ${s.line}`} kind="small">
              {t('release.short', { ...s })}
            </Text>
          ))}
          {look.shorts.length > SHOWN && (
            <Text kind="small" colour="quiet">
              {t('release.more', { count: look.shorts.length - SHOWN })}
            </Text>
          )}
        </Column>
      )}
      {look.split.slice(0, SHOWN).map(({ order, runs, over }) => (
        <Signal key={order} kind="caution" text={t(over ? 'release.over' : 'release.split', { order, count: runs })} />
      ))}
      {look.held.slice(0, SHOWN).map((h) => (
        <Signal key={h.order} kind="refused" text={t('release.held', { ...h })} />
      ))}
      {look.nothing.length > 0 && (
        <Text kind="small" colour="quiet">
          {t('release.nothing', {
            count: look.nothing.length,
            orders:
              look.nothing.slice(0, SHOWN).join(', ') +
              (look.nothing.length > SHOWN ? ` ${t('release.more', { count: look.nothing.length - SHOWN })}` : ''),
          })}
        </Text>
      )}
    </>
  );
}

function Departures({ look, now }: { look: ReleasePreview; now: number }) {
  const { t } = useTranslation();
  const me = useMe();
  if (look.departures.length === 0) return null;
  const zone = me.site.timeZone;
  const today = localDate(now, zone);
  const at = (instant: string) => {
    const date = localDate(Date.parse(instant), zone);
    return date === today ? clock(instant, zone) : `${dayName(date, zone, now)} ${clock(instant, zone)}`;
  };
  return (
    <Column gap={6}>
      <Text kind="label" colour="quiet">
        {t('release.departures', { people: t('release.people', { count: look.people }) })}
      </Text>
      {look.departures.map((d) => (
        <Row key={`${d.leavesAt} ${d.name}`} gap={12} style={{ justifyContent: 'space-between' }}>
          <View style={{ flexShrink: 1 }}>
            <Text>
              {[
                d.leavesAt
                  ? `${dayName(localDate(Date.parse(d.leavesAt), zone), zone, now)} ${clock(d.leavesAt, zone)}`
                  : '',
                d.name ?? t('orders.noDeparture'),
              ]
                .filter(Boolean)
                .join(' ')}
            </Text>
            <Text kind="small" colour="quiet">
              {[t('unit.orders', { count: d.orders }), t('unit.units', { count: d.units }), duration(d.seconds)].join(
                ' · ',
              )}
            </Text>
          </View>
          {d.chance && (
            <Signal
              kind={signals[d.chance]}
              text={t(`release.chance.${d.chance}`, { time: d.ends ? at(d.ends) : '' })}
            />
          )}
        </Row>
      ))}
    </Column>
  );
}
