import { useRef } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View } from 'react-native';
import { api } from '../state/index.ts';
import { number } from '../text/index.ts';
import { Button, Column, Failed, Field, Picker, Row, Signal, Suggest, Text, useSettled, WIDE } from '../ui/index.ts';
import { nameOf, unitsOf, withLine, type EnterForm, type FormLine } from './enterForm.ts';

/** The lines of an order: item, quantity, pack and note; Enter in a quantity begins the next. */
export function EnterLines({
  form,
  onChange,
  fault,
}: {
  form: EnterForm;
  onChange: (form: EnterForm) => void;
  fault: (path: string) => string | undefined;
}) {
  const { t } = useTranslation();
  const added = useRef<number | null>(null);
  const more = () => {
    const next = withLine(form);
    added.current = next.lines.at(-1)!.line;
    onChange(next);
  };
  const none = fault('draft.lines');
  return (
    <Column gap={8}>
      <Text kind="heading" level={2}>
        {t('order.lines')}
      </Text>
      <View role="list" aria-label={t('order.lines')} style={{ gap: 8 }}>
        {form.lines.map((line, i) => (
          <Line
            key={line.line}
            line={line}
            focus={added.current === line.line}
            onChange={(next) => onChange({ ...form, lines: form.lines.map((l) => (l === line ? next : l)) })}
            onDrop={() => onChange({ ...form, lines: form.lines.filter((l) => l !== line) })}
            onMore={more}
            itemFault={fault(`draft.lines.${i}.sku`) ?? fault(`draft.lines.${i}.pack`)}
            quantityFault={fault(`draft.lines.${i}.quantity`)}
          />
        ))}
      </View>
      {none && <Failed text={none} />}
      <Row>
        <Button icon="plus" title={t('enter.addLine')} onPress={more} />
      </Row>
    </Column>
  );
}

function Line({
  line,
  focus,
  onChange,
  onDrop,
  onMore,
  itemFault,
  quantityFault,
}: {
  line: FormLine;
  focus: boolean;
  onChange: (line: FormLine) => void;
  onDrop: () => void;
  onMore: () => void;
  itemFault: string | undefined;
  quantityFault: string | undefined;
}) {
  const { t } = useTranslation();
  const wide = useWindowDimensions().width >= WIDE;
  const { line: n, item } = line;
  const find = useSettled(item ? '' : line.text);
  const { currentData, isFetching } = api.useItemChoicesQuery({ find }, { skip: find === '' });
  const items = find === '' ? [] : (currentData?.items ?? []);
  const units = unitsOf(line);
  const free = item?.free ?? null;
  const packs = (['unit', 'inner', 'outer'] as const).filter((p) => p === 'unit' || item?.packs[p]);
  return (
    <View
      role="listitem"
      style={{ flexDirection: 'row', flexWrap: wide ? 'nowrap' : 'wrap', gap: 8, alignItems: 'flex-start' }}
    >
      <Text kind="number" colour="quiet" style={{ width: 24, paddingTop: 10, textAlign: 'right' }}>
        {n}
      </Text>
      <View style={{ flexGrow: 3, flexShrink: 1, flexBasis: wide ? 260 : '80%' }}>
        <Suggest
          bare
          focus={focus}
          label={t('enter.item', { line: n })}
          placeholder={t('enter.itemFind')}
          value={line.text}
          onChange={(text) => onChange({ ...line, text, item: null })}
          options={items.map((i) => ({
            key: i.sku,
            title: nameOf(i),
            detail: i.unit,
            aside: i.free === null ? undefined : t('enter.free', { units: number(i.free) }),
          }))}
          onPick={(sku) => {
            const chosen = items.find((i) => i.sku === sku)!;
            onChange({ ...line, item: chosen, text: nameOf(chosen), pack: 'unit' });
          }}
          nothing={line.text !== '' && !item && !isFetching && find === line.text ? t('enter.itemNone') : null}
          error={itemFault}
        />
        {item && units !== null && free !== null && (
          <Signal
            kind={units > free ? 'caution' : 'quiet'}
            text={t(units > free ? 'enter.short' : 'enter.free', { units: number(Math.max(0, free)) })}
          />
        )}
      </View>
      <View style={{ width: 96 }}>
        <Field
          bare
          numeric
          label={t('enter.quantity', { line: n })}
          value={line.quantity}
          onChange={(quantity) => onChange({ ...line, quantity })}
          onSubmit={onMore}
          error={quantityFault}
        />
      </View>
      <View style={{ width: 150 }}>
        <Picker
          label={t('enter.pack', { line: n })}
          value={line.pack}
          onChange={(pack) => onChange({ ...line, pack })}
          options={packs.map((value) => ({
            value,
            title: t(`enter.packs.${value}`, { unit: item?.unit ?? '', units: item?.packs[value] ?? 1 }),
          }))}
        />
      </View>
      <View style={{ flexGrow: 2, flexShrink: 1, flexBasis: 140 }}>
        <Field
          bare
          label={t('enter.lineNote', { line: n })}
          placeholder={t('enter.lineNoteHead')}
          value={line.note}
          onChange={(note) => onChange({ ...line, note })}
        />
      </View>
      <Button title={t('enter.dropLine', { line: n })} icon="close" iconOnly onPress={onDrop} />
    </View>
  );
}
