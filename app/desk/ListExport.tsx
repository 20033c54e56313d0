import Papa from 'papaparse';
import { useTranslation } from 'react-i18next';
import { fetchFile, notify, useAppDispatch, words } from '../state/index.ts';
import { Button, Drop, Row, saveFile } from '../ui/index.ts';

/** Saves a list as it is shown, as CSV or XLSX. */
export function ListExport({ name, rows }: { name: string; rows: () => Record<string, string | number>[] }) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const csv = () =>
    saveFile(`${name}.csv`, Papa.unparse(rows(), { newline: '\r\n', escapeFormulae: true }), 'text/csv');
  const xlsx = async () => {
    const list = rows();
    const cells = [Object.keys(list[0] ?? {}), ...list.map((row) => Object.values(row))];
    const answer = await fetchFile({ name: 'workbook', body: { cells } });
    if ('error' in answer) send(notify({ kind: 'caution', text: words(answer.error) }));
    else saveFile(`${name}.xlsx`, answer.data, answer.data.type);
  };
  return (
    <Drop title={t('list.save')} label={t('list.save')} icon="download">
      {(close) => (
        <Row gap={8}>
          <Button
            title={t('list.csv')}
            onPress={() => {
              csv();
              close();
            }}
          />
          <Button
            title={t('list.xlsx')}
            onPress={() => {
              void xlsx();
              close();
            }}
          />
        </Row>
      )}
    </Drop>
  );
}
