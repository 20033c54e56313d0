import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { addDays, localDate } from '@hand-relay/core/calendar';
import { demandKinds } from '@hand-relay/core/handling/shipping';
import { readinesses } from '@hand-relay/core/deciding/availability';
import { api, useMe, useNow, useHouse } from '../state/index.ts';
import { dayName, money, number } from '../text/index.ts';
import { Button, Checkbox, Choice, Column, DayField, Drop, Field, Labelled, Picker, Row, Text } from '../ui/index.ts';
import { KeptKeys } from './KeptKeys.tsx';
import {
  columnNames,
  filterNames,
  filtersSet,
  groups,
  listingOf,
  ofListAlone,
  paramsOf,
  pickersOf,
  priorities,
  reservationOf,
  reservations,
  sorts,
  wavesOf,
  type ColumnName,
  type FilterName,
  type Listed,
  type Listing,
} from './listing.ts';

interface PartProps {
  listing: Listing;
  onChange: (change: Partial<Listing>) => void;
}

interface Option {
  value: string;
  title: string;
  count?: number | undefined;
}

/** Filters that are always in view. */
const usual: ReadonlySet<FilterName> = new Set(['ready', 'class', 'channel', 'departure', 'carrier', 'priority']);

/** What narrows the list of orders: a field for each that drops open, several values in each. */
export function OrderFilters({
  listing,
  onChange,
  rows,
}: PartProps & { /** All orders read, which are counted; nothing is counted without them. */ rows?: Listed[] }) {
  const { t } = useTranslation();
  const { data: places } = api.useDeskPlacesQuery();
  const options = useOptions(rows, places);
  const offered = filterNames.filter((name) => rows !== undefined || !ofListAlone.has(name));
  const isSet = (name: FilterName) => listing.filters[name].length > 0;
  // What is used most stands in the row; the rest has a place in it once it is set.
  const [all, setAll] = useState(false);
  const shown = offered.filter((name) => all || usual.has(name) || isSet(name));
  const filter = (name: FilterName) => (
    <Filter key={name} name={name} options={options[name]} listing={listing} onChange={onChange} />
  );
  return (
    <>
      {shown.includes('ready') && filter('ready')}
      <Days listing={listing} onChange={onChange} />
      {shown.filter((name) => name !== 'ready').map(filter)}
      {rows && (all || listing.least !== '' || listing.most !== '') && <Worth listing={listing} onChange={onChange} />}
      {(all || listing.reference !== '') && (
        <Part of="reference" name={t('order.reference')} listing={listing} onChange={onChange} />
      )}
      {(all || listing.item !== '') && (
        <Part of="item" name={t('orders.item')} hint={t('orders.itemNumber')} listing={listing} onChange={onChange} />
      )}
      <Button
        size="small"
        title={t(all ? 'orders.fewerFilters' : 'orders.moreFilters')}
        pressed={all}
        onPress={() => setAll(!all)}
      />
      {filtersSet(listing) > 0 && (
        <Button
          size="small"
          icon="close"
          title={t('orders.clearFilters')}
          onPress={() => {
            const { from, until, item, reference, least, most, filters } = listingOf({});
            onChange({ from, until, item, reference, least, most, filters });
          }}
        />
      )}
    </>
  );
}

/** A text that something of an order holds. */
function Part({
  of,
  name,
  hint = name,
  listing,
  onChange,
}: PartProps & { of: 'item' | 'reference'; name: string; hint?: string }) {
  const { t } = useTranslation();
  const value = listing[of];
  return (
    <Drop label={name} title={value ? t('orders.filterOf', { name, value }) : name} set={value !== ''}>
      <Field focus label={hint} value={value} onChange={(text) => onChange({ [of]: text.trim() })} />
    </Drop>
  );
}

/** What an order is worth, from and to. */
function Worth({ listing, onChange }: PartProps) {
  const { t } = useTranslation();
  const me = useMe();
  const { least, most } = listing;
  const name = t('orders.column.worth');
  const shown = (amount: string) => money(100 * Number(amount), me.site.currency);
  const value =
    least && most
      ? `${shown(least)} – ${shown(most)}`
      : least
        ? t('orders.atLeast', { value: shown(least) })
        : most
          ? t('orders.atMost', { value: shown(most) })
          : '';
  const whole = (text: string) => text.replace(/\D/g, '').slice(0, 9);
  return (
    <Drop label={name} title={value ? t('orders.filterOf', { name, value }) : name} set={value !== ''}>
      <Field
        focus
        numeric
        label={t('orders.worthFrom')}
        value={least}
        onChange={(text) => onChange({ least: whole(text) })}
      />
      <Field numeric label={t('orders.worthTo')} value={most} onChange={(text) => onChange({ most: whole(text) })} />
    </Drop>
  );
}

/** Values that orders have several of, those that stand in the rows, counted. */
function among(
  rows: Listed[] | undefined,
  of: (r: Listed) => string[],
  order?: (a: string, b: string) => number,
): Option[] {
  const counts = new Map<string, number>();
  for (const value of (rows ?? []).flatMap(of)) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts.keys()].sort(order).map((value) => ({ value, title: value, count: counts.get(value) }));
}

/** The values that each filter offers; those that stand in the rows are counted. */
function useOptions(
  rows: Listed[] | undefined,
  places:
    { departures: string[]; carriers: string[]; services: string[]; lanes: string[]; zones: string[] } | undefined,
): Record<FilterName, Option[]> {
  const { t } = useTranslation();
  const { channels, classes, channelName, className } = useHouse();
  const codes = (list: typeof channels) => list.map((one) => one.code);
  const counted = (of: (r: Listed) => string | null | undefined) => {
    const counts = new Map<string, number>();
    for (const r of rows ?? []) {
      const value = of(r);
      if (value) counts.set(value, (counts.get(value) ?? 0) + 1);
    }
    return (values: readonly string[], titleOf: (value: string) => string = (v) => v): Option[] =>
      values.map((value) => ({ value, title: titleOf(value), count: rows ? (counts.get(value) ?? 0) : undefined }));
  };
  return {
    ready: counted((r) => r.outlook?.readiness)(readinesses, (v) => t(`ready.${v}` as 'ready.goes')),
    class: counted((r) => r.customerClass)(codes(classes), className),
    channel: counted((r) => r.channel)(codes(channels), channelName),
    departure: counted((r) => r.departure)(places?.departures ?? []),
    carrier: counted((r) => r.carrier)(places?.carriers ?? []),
    service: counted((r) => r.service)(places?.services ?? []),
    lane: counted((r) => r.lane)(places?.lanes ?? []),
    reserved: counted((r) => reservationOf(r))(reservations, (v) =>
      t(`orders.reservation.${v}` as 'orders.reservation.all'),
    ),
    wave: among(rows, wavesOf, (a, b) => Number(a) - Number(b)),
    picker: among(rows, pickersOf),
    zone: (places?.zones ?? []).map((value) => ({ value, title: value })),
    kind: counted((r) => r.kind)(demandKinds, (v) => t(`enter.kinds.${v}` as 'enter.kinds.order')),
    priority: counted((r) => String(r.priority))(priorities),
  };
}

const titles = {
  ready: 'orders.ready',
  class: 'orders.class',
  channel: 'orders.channel',
  departure: 'orders.departure',
  carrier: 'orders.carrier',
  zone: 'orders.zone',
  service: 'orders.column.service',
  lane: 'orders.column.lane',
  reserved: 'orders.column.reserved',
  wave: 'orders.column.waves',
  picker: 'orders.column.pickers',
  kind: 'orders.kind',
  priority: 'orders.priority',
} as const satisfies Record<FilterName, string>;

function Filter({ name, options, listing, onChange }: PartProps & { name: FilterName; options: Option[] }) {
  const { t } = useTranslation();
  const chosen = listing.filters[name];
  const set = (next: string[]) => onChange({ filters: { ...listing.filters, [name]: next } });
  const label = t(titles[name]);
  const only = options.find((o) => o.value === chosen[0])?.title ?? chosen[0];
  const title =
    chosen.length === 0
      ? label
      : chosen.length === 1
        ? t('orders.filterOf', { name: label, value: only })
        : t('orders.filterMany', { name: label, count: chosen.length });
  // What is chosen stays offered, also where the site has it no more.
  const all = [
    ...options,
    ...chosen.filter((c) => !options.some((o) => o.value === c)).map((c) => ({ value: c, title: c })),
  ];
  return (
    <Drop label={label} title={title} set={chosen.length > 0}>
      <Column gap={0}>
        {all.map((o: Option) => (
          <Row key={o.value} gap={8} style={{ flexWrap: 'nowrap', minHeight: 40, justifyContent: 'space-between' }}>
            <Checkbox
              shown
              label={o.title}
              checked={chosen.includes(o.value)}
              onPress={() => set(chosen.includes(o.value) ? chosen.filter((c) => c !== o.value) : [...chosen, o.value])}
            />
            {o.count !== undefined && (
              <Text kind="number" colour="quiet">
                {number(o.count)}
              </Text>
            )}
          </Row>
        ))}
      </Column>
      {chosen.length > 0 && <Button size="small" title={t('orders.clearFilter')} onPress={() => set([])} />}
    </Drop>
  );
}

/** Due on a day, within days, or up to one. */
function Days({ listing, onChange }: PartProps) {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const { from, until } = listing;
  const today = localDate(now, me.site.timeZone);
  const name = (day: string) => dayName(day, me.site.timeZone, now);
  const value =
    from && from === until
      ? name(from)
      : [
          from && `${t('orders.dueFrom').toLowerCase()} ${name(from)}`,
          until && `${t('orders.dueTo').toLowerCase()} ${name(until)}`,
        ]
          .filter(Boolean)
          .join(' ');
  const quick = [
    { title: t('orders.today'), from: today, until: today },
    { title: t('orders.tomorrow'), from: addDays(today, 1), until: addDays(today, 1) },
    { title: t('orders.week'), from: '', until: addDays(today, 6) },
  ];
  return (
    <Drop
      label={t('orders.due')}
      title={value ? t('orders.filterOf', { name: t('orders.due'), value }) : t('orders.due')}
      set={value !== ''}
    >
      <Row gap={4}>
        {quick.map((q) => (
          <Button
            key={q.title}
            size="small"
            title={q.title}
            pressed={q.from === from && q.until === until}
            onPress={() => onChange({ from: q.from, until: q.until })}
          />
        ))}
      </Row>
      <DayField label={t('orders.dueFrom')} value={from} onChange={(day) => onChange({ from: day })} />
      <DayField label={t('orders.dueTo')} value={until} onChange={(day) => onChange({ until: day })} />
      {value !== '' && (
        <Button size="small" title={t('orders.clearFilter')} onPress={() => onChange({ from: '', until: '' })} />
      )}
    </Drop>
  );
}

/** How the list looks: groups, rows and columns. On a phone there is one column, and it cannot be chosen. */
export function OrderLook({
  listing,
  onChange,
  wide,
  compact,
  onCompact,
}: PartProps & { wide: boolean; compact: boolean; onCompact: (compact: boolean) => void }) {
  const { t } = useTranslation();
  return (
    <Drop label={t('orders.view')} title={t('orders.view')}>
      <Labelled label={t('orders.group')}>
        <Choice
          bare
          label={t('orders.group')}
          value={listing.group}
          onChange={(group) => onChange({ group })}
          options={groups.map((value) => ({ value, title: t(`orders.by.${value}`) }))}
        />
      </Labelled>
      <SortBy listing={listing} onChange={onChange} />
      {wide && (
        <Labelled label={t('orders.rows')}>
          <Choice
            bare
            label={t('orders.rows')}
            value={compact ? 'compact' : 'comfortable'}
            onChange={(next) => onCompact(next === 'compact')}
            options={[
              { value: 'compact', title: t('orders.compact') },
              { value: 'comfortable', title: t('orders.comfortable') },
            ]}
          />
        </Labelled>
      )}
      {wide && <Columns listing={listing} onChange={onChange} />}
    </Drop>
  );
}

/** By what the list is sorted, and by what after that: for hands without a shift key. */
function SortBy({ listing, onChange }: PartProps) {
  const { t } = useTranslation();
  const { sort, then } = listing;
  const options = sorts.map((value) => ({ value, title: t(`orders.column.${value}`) }));
  const [second] = then;
  return (
    <>
      <Labelled label={t('orders.sortBy')}>
        <Picker
          label={t('orders.sortBy')}
          value={sort}
          options={options}
          onChange={(next) => onChange({ sort: next, then: then.filter((each) => each.sort !== next) })}
        />
      </Labelled>
      <Labelled label={t('orders.thenBy')}>
        <Picker
          label={t('orders.thenBy')}
          value={second?.sort ?? ''}
          options={[{ value: '', title: t('orders.thenNone') }, ...options.filter((o) => o.value !== sort)]}
          onChange={(next) => onChange({ then: next === '' ? [] : [{ sort: next, down: false }] })}
        />
      </Labelled>
    </>
  );
}

/** Columns in their order: each can be left out, or moved towards the front. */
function Columns({ listing, onChange }: PartProps) {
  const { t } = useTranslation();
  const { columns } = listing;
  const rest = columnNames.filter((c) => !columns.includes(c));
  const forward = (name: ColumnName) => {
    const at = columns.indexOf(name);
    const next = [...columns];
    next.splice(at, 1);
    next.splice(Math.max(0, at - 1), 0, name);
    onChange({ columns: next });
  };
  return (
    <Labelled label={t('orders.columns')}>
      <Column gap={0}>
        {[...columns, ...rest].map((name) => {
          const shown = columns.includes(name);
          const title = t(`orders.column.${name}`);
          return (
            <Row key={name} gap={4} style={{ flexWrap: 'nowrap', minHeight: 40, justifyContent: 'space-between' }}>
              <Checkbox
                shown
                label={title}
                checked={shown}
                onPress={() => {
                  if (shown && columns.length === 1) return;
                  onChange({ columns: shown ? columns.filter((c) => c !== name) : [...columns, name] });
                }}
              />
              {shown && (
                <Button
                  title={t('orders.forward', { column: title })}
                  icon="arrow-up"
                  iconOnly
                  size="small"
                  disabled={columns[0] === name}
                  onPress={() => forward(name)}
                />
              )}
            </Row>
          );
        })}
      </Column>
    </Labelled>
  );
}

const asListing = (settings: Record<string, unknown>) => listingOf(settings as Record<string, string>);

/** Views kept by name, own ones and those of the team: one touch brings one back. */
export function OrderViews({ listing, onChange }: PartProps) {
  const { t } = useTranslation();
  const [saveView, saving] = api.useSaveViewMutation();
  const [name, setName] = useState('');
  const [shared, setShared] = useState(false);
  const now = JSON.stringify(paramsOf(listing));
  const save = async () => {
    if (!name.trim()) return;
    const settings = JSON.parse(now) as Record<string, unknown>;
    const done = await saveView({ list: 'orders', name: name.trim(), settings, shared });
    if (done.data) setName('');
  };
  return (
    <Drop label={t('views.title')} title={t('views.title')}>
      <Row gap={4}>
        <KeptKeys
          list="orders"
          isHere={(settings) => JSON.stringify(paramsOf(asListing(settings))) === now}
          onChoose={(settings) => onChange(asListing(settings))}
        />
      </Row>
      <Field label={t('views.name')} value={name} onChange={setName} onSubmit={() => void save()} />
      <Checkbox shown label={t('views.shared')} checked={shared} onPress={() => setShared(!shared)} />
      <Row>
        <Button
          title={t('views.saveView')}
          size="small"
          busy={saving.isLoading}
          disabled={!name.trim()}
          onPress={() => void save()}
        />
      </Row>
    </Drop>
  );
}
