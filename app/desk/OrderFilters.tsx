import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { addDays, localDate } from '@hand-relay/core/calendar';
import { readinesses } from '@hand-relay/core/deciding/availability';
import { api, useMe, useNow } from '../state/index.ts';
import { number } from '../text/index.ts';
import { Choice, Column, Field, Button, Row, Text } from '../ui/index.ts';
import {
  channels,
  classes,
  columnNames,
  filtersSet,
  groups,
  listingOf,
  paramsOf,
  type ColumnName,
  type Listed,
  type Listing,
} from './listing.ts';
import { KeptKeys } from './KeptKeys.tsx';

export interface OrderFiltersProps {
  listing: Listing;
  onChange: (change: Partial<Listing>) => void;
  /** All orders read, of which the panel counts how far they can go. */
  rows: Listed[];
  /** On a phone there is one column, and it cannot be chosen. */
  withColumns: boolean;
}

/** Everything that narrows, groups and arranges the list of orders, and the views kept of it. */
export function OrderFilters({ listing, onChange, rows, withColumns }: OrderFiltersProps) {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const { data: places } = api.useDeskPlacesQuery();
  const today = localDate(now, me.site.timeZone);
  const day = (n: number) => addDays(today, n);
  const counts = new Map<string, number>();
  for (const { outlook } of rows) if (outlook) counts.set(outlook.readiness, (counts.get(outlook.readiness) ?? 0) + 1);
  const any = { value: '' as const, title: t('orders.any') };
  const named = (list: string[] | undefined, chosen: string) => [
    any,
    ...[...new Set([...(list ?? []), ...(chosen ? [chosen] : [])])].map((value) => ({ value, title: value })),
  ];
  return (
    <Column gap={14}>
      <Views listing={listing} onChange={onChange} />
      <Labelled text={t('orders.ready')}>
        <Choice
          bare
          label={t('orders.ready')}
          value={listing.ready}
          onChange={(ready) => onChange({ ready })}
          options={[
            any,
            ...readinesses.map((value) => ({
              value,
              title: `${t(`ready.${value}`)} ${number(counts.get(value) ?? 0)}`,
            })),
          ]}
        />
      </Labelled>
      <Labelled text={t('orders.until')}>
        <Choice
          bare
          label={t('orders.until')}
          value={listing.until}
          onChange={(until) => onChange({ until })}
          options={[
            any,
            { value: day(0), title: t('orders.today') },
            { value: day(1), title: t('orders.tomorrow') },
            { value: day(6), title: t('orders.week') },
          ]}
        />
      </Labelled>
      <Labelled text={t('orders.class')}>
        <Choice
          bare
          label={t('orders.class')}
          value={listing.class}
          onChange={(value) => onChange({ class: value })}
          options={[any, ...classes.map((value) => ({ value, title: value }))]}
        />
      </Labelled>
      <Labelled text={t('orders.channel')}>
        <Choice
          bare
          label={t('orders.channel')}
          value={listing.channel}
          onChange={(channel) => onChange({ channel })}
          options={[any, ...channels.map((value) => ({ value, title: t(`channel.${value}`) }))]}
        />
      </Labelled>
      {(['departure', 'carrier', 'zone'] as const).map((name) => (
        <Labelled key={name} text={t(`orders.${name}`)}>
          <Choice
            bare
            label={t(`orders.${name}`)}
            value={listing[name]}
            onChange={(value) => onChange({ [name]: value })}
            options={named(places?.[`${name}s`], listing[name])}
          />
        </Labelled>
      ))}
      <Labelled text={t('orders.group')}>
        <Choice
          bare
          label={t('orders.group')}
          value={listing.group}
          onChange={(group) => onChange({ group })}
          options={groups.map((value) => ({ value, title: t(`orders.by.${value}`) }))}
        />
      </Labelled>
      {withColumns && <Columns listing={listing} onChange={onChange} />}
    </Column>
  );
}

function Labelled({ text, children }: { text: string; children: React.ReactNode }) {
  return (
    <View style={{ gap: 4 }}>
      <Text kind="label" colour="quiet">
        {text}
      </Text>
      {children}
    </View>
  );
}

/** Columns in their order: each can be left out, or moved towards the front. */
function Columns({ listing, onChange }: Pick<OrderFiltersProps, 'listing' | 'onChange'>) {
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
    <Labelled text={t('orders.columns')}>
      <Column gap={4}>
        {[...columns, ...rest].map((name) => {
          const shown = columns.includes(name);
          const title = t(`orders.column.${name}`);
          return (
            <Row key={name} gap={4} style={{ flexWrap: 'nowrap' }}>
              <View style={{ flex: 1 }}>
                <Button
                  title={title}
                  size="small"
                  pressed={shown}
                  disabled={shown && columns.length === 1}
                  onPress={() => onChange({ columns: shown ? columns.filter((c) => c !== name) : [...columns, name] })}
                />
              </View>
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

/** Views kept by name: one touch brings one back. */
function Views({ listing, onChange }: Pick<OrderFiltersProps, 'listing' | 'onChange'>) {
  const { t } = useTranslation();
  const [saveView, saving] = api.useSaveViewMutation();
  const [name, setName] = useState<string | null>(null);
  const now = JSON.stringify(paramsOf(listing));
  const save = async () => {
    if (!name?.trim()) return;
    const settings = JSON.parse(now) as Record<string, unknown>;
    const done = await saveView({ list: 'orders', name: name.trim(), settings });
    if (done.data) setName(null);
  };
  return (
    <Labelled text={t('views.title')}>
      <Column gap={4}>
        <Row gap={4}>
          <KeptKeys
            list="orders"
            isHere={(settings) => JSON.stringify(paramsOf(asListing(settings))) === now}
            onChoose={(settings) => onChange(asListing(settings))}
          />
          {name === null && <Button title={t('views.saveView')} icon="plus" size="small" onPress={() => setName('')} />}
          {filtersSet(listing) > 0 && (
            <Button
              title={t('orders.clearFilters')}
              size="small"
              onPress={() => onChange({ ...listingOf({}), find: listing.find })}
            />
          )}
        </Row>
        {name !== null && (
          <Row gap={4} style={{ flexWrap: 'nowrap' }}>
            <View style={{ flex: 1 }}>
              <Field
                bare
                focus
                label={t('views.name')}
                placeholder={t('views.name')}
                value={name}
                onChange={setName}
                onSubmit={() => void save()}
              />
            </View>
            <Button
              title={t('views.save')}
              size="small"
              busy={saving.isLoading}
              disabled={!name.trim()}
              onPress={() => void save()}
            />
          </Row>
        )}
      </Column>
    </Labelled>
  );
}
