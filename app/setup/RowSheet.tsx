import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { SheetErrorAnswer } from '@hand-relay/contract';
import type { Column as SheetColumn, Row as SheetRow, Sheet as SheetKind } from '@hand-relay/core/reading/sheets';
import { api, notify, troubleOf, useAppDispatch, words } from '../state/index.ts';
import { base64Of, Choice, Column, Failed, Field, Button, Picture, Row, Sheet, Checkbox } from '../ui/index.ts';
import { columnName, expectation, isNumber, typed } from './cells.ts';

/** One row as a form: what is wrong is said at its field, what was typed stays. */
export function RowSheet({
  id,
  sheet,
  row,
  onClose,
}: {
  id: string;
  sheet: SheetKind;
  /** Null for a new one. */
  row: SheetRow | null;
  onClose: () => void;
}) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const [values, setValues] = useState<Record<string, string>>(() =>
    Object.fromEntries(sheet.columns.map((c) => [c.name, row ? typed(c, row) : first(c)])),
  );
  const [wrong, setWrong] = useState<SheetErrorAnswer[]>([]);
  const [change, changing] = api.useChangeSheetMutation();
  const [retire, retiring] = api.useRetireSheetRowsMutation();
  const isRetired = row?.['retired'] === true;

  const done = (
    answer: { changed: number; entry: string | null; errors: SheetErrorAnswer[] } | undefined,
    text: string,
  ) => {
    if (!answer) return;
    setWrong(answer.errors);
    if (answer.errors.length > 0) return;
    const undo = answer.entry ? { name: 'setupUndo' as const, body: { entry: answer.entry } } : undefined;
    if (answer.changed > 0) send(notify({ kind: 'done', text, undo }));
    onClose();
  };
  const name = values[sheet.key[0]!] ?? '';
  const save = async () => done((await change({ id, rows: [values] })).data, t('setup.saved', { name }));
  const setRetired = async (retired: boolean) =>
    done((await retire({ id, rows: [row!], retired })).data, t(retired ? 'setup.isRetired' : 'setup.isBack', { name }));
  const trouble = changing.error ?? retiring.error;
  const atNoField = wrong.filter((e) => !sheet.columns.some((c) => c.name === e.column));
  return (
    <Sheet
      title={row ? `${t(`setup.one.${id}`)} ${name}` : t('setup.newOne', { what: t(`setup.one.${id}`).toLowerCase() })}
      onClose={onClose}
      keys={
        <>
          {row && id !== 'stock' && (
            <Button
              title={t(isRetired ? 'setup.bringBack' : 'setup.retire')}
              busy={retiring.isLoading}
              onPress={() => void setRetired(!isRetired)}
            />
          )}
          <View style={{ flexGrow: 1 }} />
          <Button title={t('release.cancel')} onPress={onClose} />
          <Button kind="act" title={t('setup.save')} busy={changing.isLoading} onPress={() => void save()} />
        </>
      }
    >
      {trouble && <Failed text={words(troubleOf(trouble))} />}
      {atNoField.map((e) => (
        <Failed key={e.column} text={expectation(e)} />
      ))}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 16, rowGap: 10, alignItems: 'flex-end' }}>
        {sheet.columns.map((column, i) => (
          <View key={column.name} style={{ flexGrow: 1, flexBasis: 270 }}>
            <Cell
              column={column}
              focus={i === 0 && !row}
              fixed={row !== null && sheet.key.includes(column.name)}
              value={values[column.name] ?? ''}
              error={wrong.find((e) => e.column === column.name)}
              onChange={(value) => setValues({ ...values, [column.name]: value })}
              onSubmit={() => void save()}
            />
          </View>
        ))}
      </View>
    </Sheet>
  );
}

/** What a new row begins with: the column's own default. */
function first({ otherwise, type }: SheetColumn): string {
  if (type.kind === 'yes-no') return 'no';
  if (typeof otherwise === 'number' && type.kind === 'decimal') return (otherwise / type.scale).toString();
  return otherwise === undefined || otherwise === null ? '' : String(otherwise);
}

/** A picture of one's own, or the name of a drawing. */
function PictureCell({ label, value, onChange }: { label: string; value: string; onChange: (value: string) => void }) {
  const { t } = useTranslation();
  const [savePicture, { error, isLoading }] = api.useSavePictureMutation();
  const take = async (file: File) => {
    const saved = await savePicture({ data: await base64Of(file) });
    if (saved.data) onChange(saved.data.picture);
  };
  const choose = () => {
    const input = Object.assign(document.createElement('input'), {
      type: 'file',
      accept: 'image/png,image/jpeg,image/webp',
    });
    input.onchange = () => input.files?.[0] && void take(input.files[0]);
    input.click();
  };
  return (
    <Column gap={4}>
      <Row gap={8} style={{ alignItems: 'flex-end' }}>
        <Picture name={value} size={44} />
        <View style={{ flexGrow: 1, flexBasis: 240 }}>
          <Field label={label} value={value} onChange={onChange} />
        </View>
        <Button size="small" title={t('setup.choosePicture')} busy={isLoading} onPress={choose} />
      </Row>
      {error && <Failed text={words(troubleOf(error))} />}
    </Column>
  );
}

function Cell({
  column,
  value,
  error,
  fixed,
  focus,
  onChange,
  onSubmit,
}: {
  column: SheetColumn;
  value: string;
  error: SheetErrorAnswer | undefined;
  /** Part of the name of a row that is there: it stays. */
  fixed: boolean;
  focus: boolean;
  onChange: (value: string) => void;
  onSubmit: () => void;
}) {
  const { t } = useTranslation();
  const { type } = column;
  const label = `${columnName(column.name)}${column.needed ? '' : ` (${t('setup.optional')})`}`;
  if (type.kind === 'yes-no')
    return (
      <Column gap={2}>
        <Checkbox
          shown
          label={columnName(column.name)}
          checked={value === 'yes'}
          onPress={() => onChange(value === 'yes' ? 'no' : 'yes')}
        />
        {error && <Failed text={expectation(error)} />}
      </Column>
    );
  if (type.kind === 'choice' && !fixed)
    return (
      <Column gap={2}>
        <Choice
          label={columnName(column.name)}
          value={value}
          onChange={onChange}
          options={[
            ...(column.needed || column.otherwise !== undefined ? [] : [{ value: '', title: '–' }]),
            ...type.of.map((o) => ({ value: o, title: t(`setup.value.${o}`, { defaultValue: o }) })),
          ]}
        />
        {error && <Failed text={expectation(error)} />}
      </Column>
    );
  if (column.name === 'picture') return <PictureCell label={label} value={value} onChange={onChange} />;
  return (
    <Field
      label={label}
      value={value}
      focus={focus}
      numeric={isNumber(column) && type.kind === 'whole'}
      secret={column.secret ?? false}
      placeholder={fixed || column.secret ? '' : column.example}
      error={error && expectation(error)}
      onChange={(text) => !fixed && onChange(text)}
      onSubmit={onSubmit}
    />
  );
}
