import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Linking, View } from 'react-native';
import type { SheetPreview } from '@hand-relay/contract';
import type { Row as SheetRow, Sheet as SheetKind, SheetName } from '@hand-relay/core/reading/sheets';
import { addressOf, api, remember, remembered, troubleOf, words } from '../state/index.ts';
import { number } from '../text/index.ts';
import {
  base64Of,
  Column,
  DataTable,
  DropPlace,
  Empty,
  Failed,
  FaultTable,
  Button,
  Loading,
  MatchColumns,
  Row,
  Signal,
  Text,
  useShortcuts,
  type TableColumn,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { columnName, differenceText, expectation, sheetOf, shown } from './cells.ts';
import { JobProgress } from './JobProgress.tsx';

const LARGEST = 24_000_000;

type Matching = Record<string, string | null>;
interface Chosen {
  file: string;
  data: string;
}

/** Which headings a person chose for the columns of a sheet, kept on this device. */
const savedMatching = (id: string): Matching | undefined => {
  const text = remembered(`matching-${id}`);
  return text ? (JSON.parse(text) as Matching) : undefined;
};

/** Takes master data from a file: looked at first, columns matched where they are named otherwise, then written. */
export function ImportView({ id }: { id: string }) {
  const { t } = useTranslation();
  const sheet = sheetOf(id);
  return sheet ? <Known id={id as SheetName} sheet={sheet} /> : <Empty title={t('state.nowhere')} text="" />;
}

function Known({ id, sheet }: { id: SheetName; sheet: SheetKind }) {
  const { t } = useTranslation();
  const router = useRouter();
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const [job, setJob] = useState<string | null>(null);
  const [look, looking] = api.usePreviewSheetMutation();
  const [take, taking] = api.useImportSheetMutation();
  // What was seen last stays, so that nothing moves while columns are matched.
  const [seen, setSeen] = useState<SheetPreview | null>(null);
  const [own, setOwn] = useState<Matching>({});
  const back = () => router.navigate(`/setup/${id}`);
  useShortcuts({ Escape: back });

  const open = async (file: File) => {
    setWrong(null);
    if (file.size > LARGEST) return setWrong(t('setup.tooLarge'));
    const next = { file: file.name, data: await base64Of(file) };
    setChosen(next);
    const saved = savedMatching(id) ?? {};
    setOwn(saved);
    await show(next, saved);
  };
  const show = async (of: Chosen, matching: Matching) => {
    const answer = await look({ id, ...of, matching });
    if (answer.data) setSeen(answer.data);
  };
  const match = (column: string, heading: string | null) => {
    const next = { ...own, [column]: heading };
    setOwn(next);
    remember(`matching-${id}`, JSON.stringify(next));
    void show(chosen!, next);
  };
  const another = () => {
    setChosen(null);
    setJob(null);
    setSeen(null);
    looking.reset();
    taking.reset();
  };
  const go = async () => {
    const started = await take({ id, ...chosen!, matching: own });
    if (started.data) setJob(started.data.job);
  };
  const count = seen ? seen.counts.new + seen.counts.changed : 0;
  const unsure = seen?.guesses.length ?? 0;
  const trouble = looking.error ?? taking.error;
  return (
    <Page
      title={t('setup.importTitle', { what: t(`setup.sheet.${id}`) })}
      onBack={back}
      foot={
        seen && !job ? (
          <Row gap={8} style={{ justifyContent: 'flex-end' }}>
            {unsure > 0 && <Signal kind="caution" text={t('setup.unsure', { count: unsure })} />}
            <Button title={t('intake.another')} onPress={another} />
            <Button
              kind="act"
              title={t('setup.take', { count })}
              disabled={count === 0 || unsure > 0 || looking.isLoading}
              busy={taking.isLoading}
              onPress={() => void go()}
            />
          </Row>
        ) : undefined
      }
    >
      {!chosen && (
        <DropPlace
          title={t('setup.drop')}
          text={t('setup.dropText')}
          accept=".csv,.txt,.tsv,.xlsx,text/csv,text/plain"
          onFiles={([file]) => void open(file!)}
        >
          <Button
            title={t('intake.example')}
            icon="download"
            onPress={() => void Linking.openURL(addressOf({ name: 'sheetExample', id }))}
          />
        </DropPlace>
      )}
      {!chosen && <Columns sheet={sheet} />}
      {wrong && <Failed text={wrong} />}
      {trouble && <Failed text={words(troubleOf(trouble))} onRetry={another} />}
      {chosen && !seen && looking.isLoading && (
        <Column>
          <Text>{t('intake.reading', { name: chosen.file })}</Text>
          <Loading />
        </Column>
      )}
      {job && <JobProgress job={job} onDone={back} />}
      {chosen && seen && !job && (
        <>
          <Text kind="strong" live="polite">
            {t('setup.summary', {
              name: chosen.file,
              new: number(seen.counts.new),
              changed: number(seen.counts.changed),
              same: number(seen.counts.same),
              errors: t('fault.count', { count: seen.counts.errors }),
              encoding: seen.encoding,
            })}
          </Text>
          {seen.heading.length > 0 && (
            <MatchColumns
              columns={sheet.columns.map((c) => ({
                name: c.name,
                title: columnName(c.name),
                needed: c.needed === true,
              }))}
              seen={seen}
              onMatch={match}
            />
          )}
          <FaultTable
            faults={seen.errors.map((e) => ({ ...e, column: columnName(e.column), expected: expectation(e) }))}
          />
          <FaultTable
            warnings
            faults={seen.warnings.map((e) => ({ ...e, column: columnName(e.column), expected: expectation(e) }))}
          />
          <Preview sheet={sheet} seen={seen} />
        </>
      )}
    </Page>
  );
}

/** What the file may hold: every column with what it is. */
function Columns({ sheet }: { sheet: SheetKind }) {
  const { t } = useTranslation();
  return (
    <Column gap={4}>
      <Text kind="heading" level={2}>
        {t('setup.columns')}
      </Text>
      {sheet.columns.map((c) => (
        <Row key={c.name} gap={12}>
          <Text kind="mono" style={{ width: 160 }}>
            {c.name}
          </Text>
          <Text>{`${columnName(c.name)}${c.needed ? `, ${t('setup.needed')}` : ''}`}</Text>
          {c.example !== '' && <Text colour="quiet">{t('setup.asIn', { example: c.example })}</Text>}
        </Row>
      ))}
    </Column>
  );
}

/** What a new row holds beside its key, where it differs from what an empty cell stands for. */
const keyText = (sheet: SheetKind, row: SheetRow) =>
  sheet.columns
    .filter((c) => !sheet.key.includes(c.name) && !c.secret && row[c.name] !== (c.otherwise ?? false))
    .map((c) => ({ c, value: shown(c, row) }))
    .filter(({ value }) => value !== '–')
    // A yes says nothing without its column.
    .map(({ c, value }) => (typeof row[c.name] === 'boolean' ? `${columnName(c.name)}: ${value}` : value))
    .join(', ');

function Preview({ sheet, seen }: { sheet: SheetKind; seen: SheetPreview }) {
  const { t } = useTranslation();
  if (seen.rows.length === 0)
    return seen.counts.same > 0 ? <Signal kind="quiet" text={t('setup.allSame')} size="body" /> : null;
  const columns: TableColumn<SheetPreview['rows'][number]>[] = [
    {
      key: 'row',
      title: t('fault.row'),
      width: 60,
      fixed: true,
      align: 'right',
      cell: (r) => <Text kind="number">{String(r.row)}</Text>,
    },
    ...sheet.key.slice(0, 2).map((name) => ({
      key: name,
      title: columnName(name),
      width: 1,
      cell: (r: SheetPreview['rows'][number]) => (
        <Text kind="strong" lines={1}>
          {String(r.values[name] ?? '')}
        </Text>
      ),
    })),
    {
      key: 'outcome',
      title: t('intake.outcomeTitle'),
      width: 3,
      cell: (r) => (
        <Text lines={1}>
          {r.outcome === 'new'
            ? `${t('intake.outcome.new')}: ${keyText(sheet, r.values)}`
            : `${t('intake.outcome.changed')}: ${r.differences.map((d) => differenceText(sheet, d)).join('; ')}`}
        </Text>
      ),
    },
  ];
  return (
    <Column gap={4}>
      <View style={{ height: Math.min(460, 44 + seen.rows.length * 44) }}>
        <DataTable
          columns={columns}
          entries={seen.rows.map((row) => ({ kind: 'row', key: String(row.row), row }))}
          nameOf={(r) => String(r.row)}
        />
      </View>
      {seen.counts.new + seen.counts.changed > seen.rows.length && (
        <Text kind="small" colour="quiet">
          {t('release.more', { count: seen.counts.new + seen.counts.changed - seen.rows.length })}
        </Text>
      )}
    </Column>
  );
}
