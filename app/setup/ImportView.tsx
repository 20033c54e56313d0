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
  Card,
  Column,
  DataTable,
  DropPlace,
  Empty,
  Failed,
  FaultTable,
  Button,
  Loading,
  Picker,
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
          onFile={(file) => void open(file)}
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
          {seen.heading.length > 0 && <Match sheet={sheet} seen={seen} onMatch={match} />}
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

const LEFT_OUT = '';

/** Which heading of the file is which column, with values by which people know it: guesses to confirm come first. */
function Match({
  sheet,
  seen,
  onMatch,
}: {
  sheet: SheetKind;
  seen: SheetPreview;
  onMatch: (column: string, heading: string | null) => void;
}) {
  const { t } = useTranslation();
  const isGuess = (name: string) => seen.guesses.includes(name);
  const lacks = (c: SheetKind['columns'][number]) => c.needed === true && !seen.matching[c.name];
  const [all, setAll] = useState(() => sheet.columns.some(lacks));
  const used = new Set(Object.values(seen.matching));
  const free = seen.heading.filter((h) => h !== '' && !used.has(h));
  const samples = (heading: string | null | undefined) =>
    heading ? (seen.samples[heading] ?? []).join(' · ') || t('setup.noValues') : '';
  return (
    <Card gap={8}>
      <Row gap={12} style={{ justifyContent: 'space-between' }}>
        <Text kind="heading" level={2}>
          {t('setup.matching')}
        </Text>
        <Button size="small" title={t(all ? 'setup.less' : 'setup.more')} pressed={all} onPress={() => setAll(!all)} />
      </Row>
      {sheet.columns
        .filter((c) => isGuess(c.name))
        .map((c) => {
          const heading = seen.matching[c.name]!;
          const question = t('setup.isIt', { heading, column: columnName(c.name) });
          return (
            <View key={c.name} role="group" aria-label={question} style={{ gap: 6 }}>
              <Signal kind="caution" text={question} size="body" />
              <Text colour="quiet">{t('setup.holds', { values: samples(heading) })}</Text>
              <Row gap={8}>
                <Button size="small" title={t('setup.useIt')} onPress={() => onMatch(c.name, heading)} />
                <Button size="small" title={t('setup.ignoreIt')} onPress={() => onMatch(c.name, null)} />
              </Row>
            </View>
          );
        })}
      {free.length > 0 && <Text colour="quiet">{t('setup.unused', { headings: free.join(', ') })}</Text>}
      {all &&
        sheet.columns.map((c) => (
          <Row key={c.name} gap={12}>
            <Text style={{ width: 170 }}>{columnName(c.name)}</Text>
            <View style={{ width: 220 }}>
              <Picker
                label={t('setup.headingOf', { column: columnName(c.name) })}
                value={seen.matching[c.name] ?? LEFT_OUT}
                onChange={(heading) => onMatch(c.name, heading === LEFT_OUT ? null : heading)}
                options={[
                  ...(c.needed && seen.matching[c.name]
                    ? []
                    : [{ value: LEFT_OUT, title: t(c.needed ? 'setup.choose' : 'setup.leftOut') }]),
                  ...seen.heading.filter((h) => h !== '').map((h) => ({ value: h, title: h })),
                ]}
              />
            </View>
            {lacks(c) ? (
              <Signal kind="refused" text={t('setup.needed')} />
            ) : (
              <Text kind="mono" colour="quiet" lines={1} style={{ flexShrink: 1 }}>
                {samples(seen.matching[c.name])}
              </Text>
            )}
          </Row>
        ))}
    </Card>
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
