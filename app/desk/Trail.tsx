import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { TrailEntry } from '@hand-relay/contract';
import { serverNow, useMe } from '../state/index.ts';
import { i18n, clock, dayOf, mass, distance, lotWords } from '../text/index.ts';
import { Shape, Text, useSurface, type SignalKind } from '../ui/index.ts';
import { differenceWords, type Difference } from './differences.ts';

const signals: Record<string, SignalKind> = {
  'scan-refused': 'refused',
  'pack-refused': 'refused',
  short: 'caution',
  elsewhere: 'caution',
  out: 'caution',
  'no-bin': 'caution',
  'order-larger': 'caution',
  'ship-waits': 'caution',
  shipped: 'done',
  'carton-closed': 'done',
  'pallet-closed': 'done',
  picked: 'done',
};

/** An item's name with the lots and serial numbers of what is told of. */
function withLots(item: string, parts: Parameters<typeof lotWords>[0]): string {
  const lots = lotWords(parts);
  return lots === '' ? item : `${item} (${lots})`;
}

/** A journal entry in words. */
export function trailWords({ kind, facts }: TrailEntry): string {
  const said: Record<string, unknown> = { ...facts };
  const text = (key: string) => (i18n.exists(key) ? i18n.t(key, facts) : '');
  if (kind === 'scan-refused' || kind === 'pack-refused' || kind === 'ship-waits')
    said['why'] = text(`refusal.${String(facts['code'])}`).replace(/\.$/, '');
  if (kind === 'scan-accepted') {
    const { kind: how, why, units } = (facts['input'] ?? {}) as { kind?: string; why?: string; units?: number };
    said['what'] = text(`what.${String(facts['what'])}`);
    if (how === 'count') said['units'] = units;
    if (why) said['why'] = text(`floor.why.${why}`);
  }
  if (kind === 'short' || kind === 'elsewhere' || kind === 'out')
    said['reason'] = text(`floor.reason.${String(facts['reason'])}`).toLowerCase();
  if (kind === 'exception-settled') said['how'] = text(`exceptions.how.${String(facts['act'])}`).toLowerCase();
  if (kind === 'released') {
    said['unitsText'] = i18n.t('unit.units', { count: Number(facts['units']) });
    said['linesText'] = i18n.t('unit.lines', { count: Number(facts['lines']) });
  }
  if (kind === 'shipped') said['onLoad'] = facts['load'] ? i18n.t('trail.onLoad', facts) : '';
  if (kind === 'tracking') said['from'] = text(`from.${String(facts['from'])}`);
  if (kind === 'packed') {
    const parts = facts['parts'] as { lot: string | null; serial: string | null; units: number }[];
    said['units'] = parts.reduce((n, p) => n + p.units, 0);
    said['item'] = withLots(String(facts['item']), parts);
  }
  if (kind === 'picked') {
    const { item, lot, serials = [] } = facts as { item: string; lot?: string; serials?: string[] };
    said['item'] = withLots(item, serials.length > 0 ? serials.map((serial) => ({ lot, serial })) : [{ lot }]);
  }
  if (kind === 'tagged') {
    const { add = [], remove = [] } = facts as { add?: string[]; remove?: string[] };
    said['tags'] = [...add.map((tag) => `+ ${tag}`), ...remove.map((tag) => `– ${tag}`)].join(', ');
  }
  if (kind === 'order-edited' || kind === 'order-changed') {
    const { differences = [] } = facts as { differences?: Difference[] };
    said['what'] = differences.map(differenceWords).join('; ');
  }
  if (kind === 'order-moved') {
    said['lane'] ??= '–';
    said['door'] ??= '–';
  }
  if (typeof facts['weightG'] === 'number') said['weight'] = mass(facts['weightG']);
  if (typeof facts['expectedG'] === 'number') said['expected'] = mass(facts['expectedG']);
  if (typeof facts['beforeG'] === 'number') said['before'] = mass(facts['beforeG']);
  if (typeof facts['weightReason'] === 'string') said['reason'] = i18n.t(`bench.weightReason.${facts['weightReason']}`);
  if (typeof facts['metres'] === 'number') said['walk'] = distance(facts['metres']);
  return i18n.t(`trail.${wordedAs(kind, facts)}`, said);
}

/** The wording of an entry, where a kind has several: a touch is told apart from a scan. */
function wordedAs(kind: string, facts: TrailEntry['facts']): string {
  if (kind === 'carton-closed' && facts['weightReason']) return 'carton-closed-off';
  if (kind === 'order-larger' && facts['over']) return 'order-larger-over';
  // What a person entered came in no document.
  if (kind === 'order-taken' && facts['document'] === '') return 'order-entered';
  if (kind === 'order-changed' && facts['document'] === '') return 'order-edited';
  const { kind: how, why } = (facts['input'] ?? {}) as { kind?: string; why?: string };
  if (kind !== 'scan-accepted' || (how !== 'touch' && how !== 'count')) return kind;
  return `${how}-accepted${why ? '-why' : ''}`;
}

/** When it was done: a device offline tells later. */
const doneAt = ({ at, facts }: TrailEntry): string => (typeof facts['doneAt'] === 'string' ? facts['doneAt'] : at);

/** Who did what when, the first thing first. */
export function Trail({ entries }: { entries: TrailEntry[] }) {
  const { t } = useTranslation();
  const me = useMe();
  const surface = useSurface();
  if (entries.length === 0) return <Text colour="quiet">{t('trail.empty')}</Text>;
  return (
    <View role="list" style={{ borderLeftWidth: 2, borderColor: surface.line, paddingLeft: 12, gap: 8 }}>
      {entries.map((entry) => {
        const signal = signals[entry.kind];
        return (
          <View key={entry.id} role="listitem" style={{ flexDirection: 'row', gap: 8, alignItems: 'flex-start' }}>
            <View style={{ paddingTop: 4, width: 14 }}>{signal && <Shape kind={signal} size={12} />}</View>
            <View style={{ flex: 1 }}>
              <Text kind="small">{trailWords(entry)}</Text>
              <Text kind="small" colour="quiet">
                {[
                  dayOf(doneAt(entry), me.site.timeZone, serverNow()),
                  clock(doneAt(entry), me.site.timeZone),
                  entry.person,
                  entry.device,
                ]
                  .filter(Boolean)
                  .join(' · ')}
              </Text>
            </View>
          </View>
        );
      })}
    </View>
  );
}
