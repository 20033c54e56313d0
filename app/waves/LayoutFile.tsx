import Papa from 'papaparse';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { FloorLayout } from '@hand-relay/contract';
import { guard, unguard } from '@hand-relay/core/reading/sheets';
import { layoutRows, readLayout, type LayoutFault } from '@hand-relay/core/walking/floor';
import { notify, useAppDispatch } from '../state/index.ts';
import { Button, saveFile, Signal, Text } from '../ui/index.ts';

export interface FileFaults {
  file: string;
  faults: LayoutFault[];
}

export const saveLayout = (layout: FloorLayout) =>
  saveFile('floor.json', new Blob([JSON.stringify(layout, null, 2)], { type: 'application/json' }), 'application/json');

export const saveLayoutTable = (layout: FloorLayout) =>
  saveFile(
    'floor.csv',
    new Blob([Papa.unparse(layoutRows(layout).map((row) => row.map(guard)))], { type: 'text/csv' }),
    'text/csv',
  );

/** A layout out of a file's text: rows and columns of a table where it is CSV, else JSON. */
export function layoutOf(name: string, text: string): FloorLayout | LayoutFault[] {
  if (!name.toLowerCase().endsWith('.csv')) return JSON.parse(text) as FloorLayout;
  return readLayout(Papa.parse<string[]>(text.replace(/^\uFEFF/, '')).data.map((row) => row.map(unguard)));
}

/** Takes a layout from a file; what is wrong with it is told by row and column. */
export function LoadFloor({
  onLayout,
  onFaults,
}: {
  onLayout: (layout: FloorLayout) => void;
  onFaults: (faults: FileFaults | null) => void;
}) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const choose = () => {
    const input = document.createElement('input');
    input.type = 'file';
    input.accept = '.csv,.json,text/csv,application/json';
    input.onchange = () => {
      const file = input.files?.[0];
      void file?.text().then((text) => {
        try {
          const layout = layoutOf(file.name, text);
          if (Array.isArray(layout)) return onFaults({ file: file.name, faults: layout });
          onFaults(null);
          onLayout(layout);
        } catch (error) {
          send(notify({ kind: 'refused', text: t('plan.notJson', { why: (error as Error).message }) }));
        }
      });
    };
    input.click();
  };
  return <Button title={t('plan.load')} size="small" onPress={choose} />;
}

const SHOWN = 8;

export function LayoutFaults({ file, faults }: FileFaults) {
  const { t } = useTranslation();
  return (
    <View role="alert" style={{ gap: 2 }}>
      <Signal kind="refused" text={t('plan.faults', { count: faults.length, file })} />
      {faults.slice(0, SHOWN).map(({ row, column, expected, got }) => (
        <Text key={`${row} ${column} ${expected}`} kind="small">
          {t(got === '' ? 'plan.fault' : 'plan.faultGot', {
            row,
            column,
            got,
            expected: t(`plan.expected.${expected}`),
          })}
        </Text>
      ))}
    </View>
  );
}
