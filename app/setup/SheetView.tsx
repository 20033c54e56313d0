import { useGlobalSearchParams, useRouter } from 'expo-router';
import { useMemo, useRef, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Linking, useWindowDimensions, View, type TextInput } from 'react-native';
import {
  keyOf,
  type Column as SheetColumn,
  type Row as SheetRow,
  type Sheet as SheetKind,
} from '@hand-relay/core/reading/sheets';
import { addressOf, api, troubleOf, useMay, words } from '../state/index.ts';
import { number } from '../text/index.ts';
import {
  Choice,
  DataTable,
  Empty,
  Failed,
  Field,
  Button,
  Loading,
  Row,
  Signal,
  Text,
  useShortcuts,
  WIDE,
  type TableColumn,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { CopyWeek } from './CopyWeek.tsx';
import { arrange } from './arrange.ts';
import { columnName, isNumber, sheetOf, shown } from './cells.ts';
import { RowSheet } from './RowSheet.tsx';

/** One kind of master data: searched, sorted, edited in place, taken from a file and saved as one. */
export function SheetView({ id }: { id: string }) {
  const { t } = useTranslation();
  const sheet = sheetOf(id);
  return sheet ? <Known id={id} sheet={sheet} /> : <Empty title={t('state.nowhere')} text="" />;
}

function Known({ id, sheet }: { id: string; sheet: SheetKind }) {
  const { t } = useTranslation();
  const router = useRouter();
  const params = useGlobalSearchParams<{ find?: string; sort?: string; down?: string; retired?: string }>();
  const { width } = useWindowDimensions();
  const wide = width >= WIDE;
  const { data, error, refetch } = api.useSheetRowsQuery(id);
  const [editing, setEditing] = useState<SheetRow | 'new' | null>(null);
  const [current, setCurrent] = useState<string>();
  const may = useMay('house.items') || !sheet.shared;
  const finder = useRef<TextInput>(null);
  const find = params.find ?? '';
  const retired = params.retired === '1';
  const sort = sheet.columns.some((c) => c.name === params.sort) ? params.sort! : sheet.columns[0]!.name;
  const down = params.down === '1';
  const rows = useMemo(
    () => arrange(data?.rows ?? [], { find, retired, sort, down }),
    [data, find, retired, sort, down],
  );
  const step = (by: number) => {
    const at = rows.findIndex((r) => keyOf(sheet, r) === current);
    const next = rows[Math.min(rows.length - 1, Math.max(0, at < 0 ? 0 : at + by))];
    if (next) setCurrent(keyOf(sheet, next));
  };
  useShortcuts(
    {
      f: () => finder.current?.focus(),
      j: () => step(1),
      k: () => step(-1),
      ArrowDown: () => step(1),
      ArrowUp: () => step(-1),
      Enter: () => may && setEditing(rows.find((r) => keyOf(sheet, r) === current) ?? null),
      n: () => may && setEditing('new'),
      Escape: () => router.navigate('/setup'),
    },
    editing === null,
  );
  const file = (format: 'csv' | 'xlsx') =>
    void Linking.openURL(addressOf({ name: 'sheetFile', id, query: { format } }));
  return (
    <Page
      title={t(`setup.sheet.${id}`)}
      filled
      onBack={() => router.navigate('/setup')}
      aside={
        <Row gap={4}>
          {may && (
            <Button
              size="small"
              icon="upload"
              title={t('setup.import')}
              onPress={() => router.navigate(`/setup/${id}/import`)}
            />
          )}
          <Button
            size="small"
            icon="download"
            title={t('setup.csv')}
            label={t('setup.saveCsv')}
            onPress={() => file('csv')}
          />
          <Button
            size="small"
            icon="download"
            title={t('setup.xlsx')}
            label={t('setup.saveXlsx')}
            onPress={() => file('xlsx')}
          />
          {may && id === 'roster' && data && <CopyWeek rows={data.rows} />}
          {may && <Button size="small" kind="act" title={t('setup.add')} onPress={() => setEditing('new')} />}
        </Row>
      }
    >
      <View style={{ paddingHorizontal: wide ? 20 : 12, paddingBottom: 8, gap: 8 }}>
        {!may && <Signal kind="caution" text={t('setup.sharedReadOnly')} size="body" />}
        <Row gap={12}>
          <View style={{ flexGrow: 1, flexBasis: 200, maxWidth: 360 }}>
            <Field
              bare
              label={t('setup.find')}
              placeholder={t('setup.find')}
              value={find}
              inputRef={finder}
              onChange={(text) => router.setParams({ find: text || undefined })}
            />
          </View>
          <Choice
            bare
            label={t('orders.show')}
            value={retired ? '1' : ''}
            onChange={(value) => router.setParams({ retired: value || undefined })}
            options={[
              { value: '', title: t('setup.inUse') },
              { value: '1', title: t('setup.retired') },
            ]}
          />
          <Text kind="small" colour="quiet" live="polite">
            {t('orders.count', { shown: number(rows.length), all: number(data?.rows.length ?? 0) })}
          </Text>
        </Row>
      </View>
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading rows={10} />}
      {data && rows.length === 0 && (
        <Empty
          title={t(find || retired ? 'setup.noneTitle' : 'setup.emptyTitle')}
          text={t(find || retired ? 'setup.noneText' : `setup.about.${id}`)}
          {...(find || retired
            ? {
                action: {
                  title: t('orders.clear'),
                  onPress: () => router.setParams({ find: undefined, retired: undefined }),
                },
              }
            : may
              ? { action: { title: t('setup.import'), onPress: () => router.navigate(`/setup/${id}/import`) } }
              : {})}
        />
      )}
      {rows.length > 0 && (
        <DataTable
          columns={tableColumns(sheet, wide ? Math.max(3, Math.floor((width - 120) / 140)) : 2)}
          entries={rows.map((row) => ({ kind: 'row', key: keyOf(sheet, row), row }))}
          sort={{ key: sort, down }}
          onSort={(key) => router.setParams({ sort: key, down: sort === key && !down ? '1' : undefined })}
          current={current}
          onOpen={(row) => {
            setCurrent(keyOf(sheet, row));
            if (may) setEditing(row);
          }}
          nameOf={(row) =>
            sheet.columns
              .slice(0, 2)
              .map((c) => shown(c, row))
              .join(', ')
          }
        />
      )}
      {editing && (
        <RowSheet id={id} sheet={sheet} row={editing === 'new' ? null : editing} onClose={() => setEditing(null)} />
      )}
    </Page>
  );
}

function tableColumns(sheet: SheetKind, most: number): TableColumn<SheetRow>[] {
  return sheet.columns
    .filter((c) => !c.secret)
    .slice(0, most)
    .map((c: SheetColumn) => ({
      key: c.name,
      title: columnName(c.name),
      width: c.name === 'name' ? 2 : 1,
      align: isNumber(c) ? 'right' : 'left',
      sortable: true,
      cell: (row) => (
        <Text kind={sheet.key.includes(c.name) ? 'strong' : isNumber(c) ? 'number' : 'body'} lines={1}>
          {shown(c, row)}
        </Text>
      ),
    }));
}
