import { useRouter } from 'expo-router';
import type { Ref } from 'react';
import { useTranslation } from 'react-i18next';
import { View, type TextInput } from 'react-native';
import { useMay } from '../state/index.ts';
import { Button, Choice, Field, Row, Text } from '../ui/index.ts';
import { Freshness } from './Freshness.tsx';
import { ListExport } from './ListExport.tsx';
import { filtersSet, paramsOf, shows, type Listed, type Listing } from './listing.ts';
import { OrderFilters, OrderLook, OrderViews } from './OrderFilters.tsx';

/** What stands above the list of orders: search, what is shown, filters, views. On a phone as little of it as can be. */
export function ListHead({
  listing,
  onChange,
  rows,
  count,
  saved,
  finder,
  wide,
  beside,
  filters,
  onFilters,
  compact,
  onCompact,
  onCompute,
}: {
  listing: Listing;
  onChange: (change: Partial<Listing>) => void;
  rows: Listed[];
  /** How many are shown of how many. */
  count: string;
  /** The list as rows of a file. */
  saved: () => Record<string, string | number>[];
  finder: Ref<TextInput>;
  wide: boolean;
  /** An order stands beside the list. */
  beside: boolean;
  filters: boolean;
  onFilters: () => void;
  compact: boolean;
  onCompact: (compact: boolean) => void;
  onCompute: () => void;
}) {
  const { t } = useTranslation();
  const router = useRouter();
  const mayEnter = useMay('orders.change');
  const set = filtersSet(listing);
  const enter = mayEnter && (
    <Button
      title={t('enter.key')}
      icon="plus"
      iconOnly={!wide || beside}
      size={wide ? 'small' : 'desk'}
      onPress={() => router.navigate('/desk/enter')}
    />
  );
  const fold = (
    <Button
      title={set > 0 ? t('orders.filterSet', { count: set }) : t('orders.filter')}
      icon="filter-variant"
      iconOnly={!wide && set === 0}
      size={wide ? 'small' : 'desk'}
      pressed={filters}
      onPress={onFilters}
    />
  );
  const find = (
    <Field
      label={t('orders.find')}
      placeholder={t('orders.find')}
      bare
      value={listing.find}
      onChange={(text) => onChange({ find: text })}
      inputRef={finder}
    />
  );
  const show = (
    <Choice
      bare
      label={t('orders.show')}
      value={listing.show}
      onChange={(next) => onChange({ show: next })}
      options={shows.map((value) => ({ value, title: t(`orders.${value}`) }))}
    />
  );
  const counted = (
    <Text kind="small" colour="quiet" live="polite">
      {count}
    </Text>
  );
  const lines = (
    <Button
      title={t('lines.title')}
      size={wide ? 'small' : 'desk'}
      onPress={() => router.navigate({ pathname: '/desk/lines', params: paramsOf(listing) })}
    />
  );
  const fresh = listing.show !== 'closed' && <Freshness brief={wide ? 'time' : 'key'} onCompute={onCompute} />;
  const look = <OrderLook listing={listing} onChange={onChange} wide={wide} compact={compact} onCompact={onCompact} />;
  if (!wide)
    return (
      <View style={{ paddingHorizontal: 12, paddingBottom: 4, gap: 4 }}>
        <Row gap={6} style={{ flexWrap: 'nowrap' }}>
          <View style={{ flex: 1, minWidth: 0 }}>{find}</View>
          {fold}
          {enter}
        </Row>
        <Row gap={6} style={{ justifyContent: 'space-between' }}>
          {show}
          {fresh}
        </Row>
        {filters && (
          <Row gap={6}>
            <OrderFilters listing={listing} onChange={onChange} rows={rows} />
            <OrderViews listing={listing} onChange={onChange} />
            {look}
            {lines}
            <ListExport name="orders" rows={saved} />
            {counted}
          </Row>
        )}
      </View>
    );
  return (
    <View style={{ paddingHorizontal: 20, paddingBottom: 6, gap: 6 }}>
      <Row gap={8}>
        <View style={{ flexGrow: 1, flexBasis: 160, maxWidth: 300 }}>{find}</View>
        {show}
        <View style={{ flexGrow: 1 }} />
        {beside && fold}
        {!beside && lines}
        {!beside && <OrderViews listing={listing} onChange={onChange} />}
        {look}
        {!beside && enter}
        {!beside && <ListExport name="orders" rows={saved} />}
      </Row>
      <Row gap={6} style={{ justifyContent: 'flex-end' }}>
        {filters && (
          <Row gap={4} style={{ flexGrow: 1, flexShrink: 1 }}>
            <OrderFilters listing={listing} onChange={onChange} rows={rows} />
          </Row>
        )}
        {counted}
        {fresh}
        {beside && enter}
      </Row>
    </View>
  );
}
