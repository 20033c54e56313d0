import Papa from 'papaparse';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { i18n, number } from '../text/index.ts';
import { Card, Row } from './Box.tsx';
import { DataTable, type TableColumn } from './DataTable.tsx';
import { Button } from './Button.tsx';
import { saveFile } from './saveFile.ts';
import { Signal } from './Signal.tsx';
import { Text } from './Text.tsx';

/** What is wrong in a file, at its place; row 0 is the whole file. */
export interface Fault {
  row: number;
  column: string;
  value: string;
  /** In words. */
  expected: string;
  /** Further columns of the file that is saved. */
  more?: Record<string, string>;
}

/** The faults of a file, or what is to be pointed out in it, to be read here and saved as a file of their own. */
export function FaultTable({ faults, warnings = false }: { faults: Fault[]; warnings?: boolean }) {
  const { t } = useTranslation();
  if (faults.length === 0) return null;
  const save = () =>
    saveFile(
      warnings ? 'warnings.csv' : 'errors.csv',
      Papa.unparse(
        faults.map(({ row, column, value, expected, more }) => ({ row, column, value, expected, ...more })),
        { newline: '\r\n', escapeFormulae: true },
      ),
      'text/csv',
    );
  return (
    <Card gap={4} pad={8}>
      <Row gap={12} pad={8} style={{ justifyContent: 'space-between' }}>
        <Signal
          kind={warnings ? 'caution' : 'refused'}
          text={`${t(warnings ? 'fault.warnings' : 'fault.title')}: ${number(faults.length)}`}
          size="body"
        />
        <Button size="small" icon="download" title={t('fault.save')} onPress={save} />
      </Row>
      <View style={{ height: Math.min(320, 44 + faults.length * 44) }}>
        <DataTable
          columns={columns()}
          entries={faults.map((row, i) => ({ kind: 'row', key: String(i), row }))}
          nameOf={(f) => `${f.row} ${f.column}`}
        />
      </View>
    </Card>
  );
}

function columns(): TableColumn<Fault>[] {
  const t = i18n.t.bind(i18n);
  return [
    {
      key: 'row',
      title: t('fault.row'),
      width: 60,
      fixed: true,
      align: 'right',
      cell: (f) => <Text kind="number">{f.row === 0 ? t('fault.wholeFile') : String(f.row)}</Text>,
    },
    { key: 'column', title: t('fault.column'), width: 1, cell: (f) => <Text lines={1}>{f.column || '–'}</Text> },
    {
      key: 'value',
      title: t('fault.value'),
      width: 1,
      cell: (f) => (
        <Text kind="mono" lines={1}>
          {f.value || '–'}
        </Text>
      ),
    },
    { key: 'expected', title: t('fault.expected'), width: 2, cell: (f) => <Text lines={1}>{f.expected}</Text> },
  ];
}
