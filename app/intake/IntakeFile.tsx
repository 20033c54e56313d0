import { useEffect, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { IntakeResult } from '@hand-relay/contract';
import { demandKinds } from '@hand-relay/core/handling/shipping';
import { orderSheet } from '@hand-relay/core/reading/intake';
import { api, useHouse } from '../state/index.ts';
import { i18n, number } from '../text/index.ts';
import {
  Card,
  Column,
  Failed,
  FaultTable,
  Field,
  Button,
  Labelled,
  Loading,
  MatchColumns,
  Picker,
  Row,
  Signal,
  Text,
  useSettled,
} from '../ui/index.ts';
import { FoundOrders } from './FoundOrders.tsx';
import { toTake, type Layout } from './layout.ts';
import type { OrderFile } from './useOrderFiles.ts';

/** Days from the import on which orders without a date of their own may be due. */
const DAYS = ['+0', '+1', '+2', '+3', '+5', '+7', '+14'];

/** One chosen file: what is in it, how it is read, what is wrong in it. */
export function IntakeFile({
  file,
  alone,
  onLayout,
  onSender,
  onDrop,
}: {
  file: OrderFile;
  /** Whether no other file is chosen: then the foot of the page puts it away. */
  alone: boolean;
  onLayout: (part: Partial<Layout>) => void;
  onSender: (sender: string) => void;
  onDrop: () => void;
}) {
  const { t } = useTranslation();
  const { name, result, trouble } = file;
  // As the file heads it; a column that is missing has no heading there.
  const titleOf = (column: string) =>
    result?.file?.matching[column] ??
    (orderSheet.columns.some((c) => c.name === column) ? t(`intake.column.${column}`) : column);
  const body = (
    <>
      <Row gap={12} style={{ justifyContent: 'space-between', flexWrap: 'nowrap' }}>
        <Text kind="strong" live="polite" style={{ flexShrink: 1 }}>
          {!result ? (trouble ? name : t('intake.reading', { name })) : `${name}: ${summaryOf(result).join(', ')}`}
        </Text>
        {!alone && <Button size="small" icon="close" iconOnly title={t('intake.remove', { name })} onPress={onDrop} />}
      </Row>
      {trouble && <Failed text={trouble} />}
      {!result && !trouble && <Loading />}
      {result?.file && <HowRead file={file} onLayout={onLayout} onSender={onSender} />}
      {result && result.orders.length > 0 && toTake(result) === 0 && (
        <Signal kind="quiet" text={t('intake.nothingToTake')} size="body" />
      )}
      {result && (
        <FaultTable
          faults={result.errors.map(({ order, ...e }) => ({
            ...e,
            column: titleOf(e.column),
            expected: t(`intake.expected.${e.expected}`),
            more: { order },
          }))}
        />
      )}
      {result && <FoundOrders orders={result.orders} />}
    </>
  );
  return alone ? <Column gap={16}>{body}</Column> : <Card gap={12}>{body}</Card>;
}

/** What a file holds, in counts; what there is none of is not said. */
function summaryOf({ orders, errors }: IntakeResult): string[] {
  const said = (['new', 'changed', 'adapts', 'same', 'under-way'] as const).flatMap((outcome) => {
    const count = orders.filter((o) => o.outcome === outcome).length;
    return count === 0 ? [] : [i18n.t(`intake.counted.${outcome}`, { n: number(count) })];
  });
  return [...said, i18n.t('fault.count', { count: errors.length })];
}

/** Whose file it is, and which heading is which column. */
function HowRead({
  file,
  onLayout,
  onSender,
}: {
  file: OrderFile;
  onLayout: (part: Partial<Layout>) => void;
  onSender: (sender: string) => void;
}) {
  const { t } = useTranslation();
  const { channels } = useHouse();
  const { data } = api.useOrderSendersQuery();
  const found = file.result!.file!;
  const values = file.layout?.values ?? found.values;
  const like = (name: string) => {
    const known = data?.senders.find((s) => s.name === name);
    if (known) onLayout(known.layout);
    onSender(known ? name : '');
  };
  return (
    <Column gap={8}>
      {found.sender !== '' && <Signal kind="done" text={t('intake.file.readAs', { sender: found.sender })} />}
      <MatchColumns
        columns={orderSheet.columns.map((c) => ({
          name: c.name,
          title: t(`intake.column.${c.name}`),
          needed: c.needed === true,
        }))}
        seen={found}
        onMatch={(column, heading) => onLayout({ matching: { [column]: heading } })}
        same={{
          values,
          first: (column) => (column === 'channel' ? channels[0]?.code : FIRST[column]) ?? '',
          onChange: (column, value) => {
            const { [column]: _, ...others } = values;
            onLayout({ values: value === null ? others : { ...others, [column]: value } });
          },
          field: (column, value, onChange) => <Fixed column={column} value={value} onChange={onChange} />,
        }}
      >
        <Row gap={16}>
          <Labelled label={t('intake.file.dates')}>
            <Picker
              label={t('intake.file.dates')}
              value={found.dates}
              onChange={(dates) => onLayout({ dates })}
              options={(['unknown', 'day-first', 'month-first'] as const).map((value) => ({
                value,
                title: t(`intake.file.datesOf.${value}`),
              }))}
            />
          </Labelled>
          <Labelled label={t('intake.file.decimals')}>
            <Picker
              label={t('intake.file.decimals')}
              value={found.decimals}
              onChange={(decimals) => onLayout({ decimals })}
              options={(['unknown', 'point', 'comma'] as const).map((value) => ({
                value,
                title: t(`intake.file.decimalsOf.${value}`),
              }))}
            />
          </Labelled>
        </Row>
      </MatchColumns>
      <Row gap={16} style={{ alignItems: 'flex-end' }}>
        <View style={{ width: 260 }}>
          <Field
            label={t('intake.file.sender')}
            value={file.sender}
            onChange={onSender}
            placeholder={t('intake.file.senderHint')}
          />
        </View>
        {(data?.senders.length ?? 0) > 0 && (
          <Picker
            label={t('intake.file.like')}
            value={data!.senders.some((s) => s.name === file.sender) ? file.sender : ''}
            onChange={like}
            options={[
              { value: '', title: t('intake.file.likeNone') },
              ...data!.senders.map((s) => ({ value: s.name, title: t('intake.file.likeOne', { sender: s.name }) })),
            ]}
          />
        )}
      </Row>
    </Column>
  );
}

/** What a column begins with when it is the same for all rows. */
const FIRST: Record<string, string> = {
  due: '+1',
  kind: 'order',
  pack: 'unit',
  ship_complete: 'yes',
  priority: '5',
  country: 'GB',
};

/** The value that a column has in every row. */
function Fixed({ column, value, onChange }: { column: string; value: string; onChange: (value: string) => void }) {
  const { t } = useTranslation();
  const { channels } = useHouse();
  const label = t('intake.file.valueOf', { column: t(`intake.column.${column}`) });
  const days = (text: string) => {
    const n = Number(text);
    return n === 0
      ? t('intake.file.inDays.today')
      : n === 1
        ? t('intake.file.inDays.tomorrow')
        : t('intake.file.inDays.more', { count: n });
  };
  const choices: Record<string, { value: string; title: string }[]> = {
    channel: channels.map((c) => ({ value: c.code, title: c.name })),
    due: DAYS.map((d) => ({ value: d, title: days(d) })),
    kind: demandKinds.map((k) => ({ value: k, title: t(`enter.kinds.${k}`) })),
    pack: (['unit', 'inner', 'outer'] as const).map((p) => ({ value: p, title: t(`floor.level.${p}`) })),
    ship_complete: (['yes', 'no'] as const).map((y) => ({ value: y, title: t(`setup.${y}`) })),
  };
  const options = choices[column];
  if (options) return <Picker label={label} value={value} onChange={onChange} options={options} />;
  return <SettledField label={label} value={value} onChange={onChange} />;
}

/** A field that speaks once nobody types any more: the file is read again then. */
function SettledField({ label, value, onChange }: { label: string; value: string; onChange: (value: string) => void }) {
  const [text, setText] = useState(value);
  const settled = useSettled(text);
  useEffect(() => {
    if (settled.trim() !== value) onChange(settled.trim());
    // What the file is read by now is no reason to read it again.
    // oxlint-disable-next-line react-hooks/exhaustive-deps
  }, [settled]);
  return <Field bare label={label} value={text} onChange={setText} />;
}
