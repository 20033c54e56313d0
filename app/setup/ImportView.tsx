import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Linking, View } from 'react-native';
import type { SheetLook } from '@hand-relay/contract';
import type { Row as SheetRow, Sheet as SheetKind, SheetName } from '@hand-relay/core/sheets';
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
  Key,
  Loading,
  Row,
  Signal,
  Txt,
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
const keptMatching = (id: string): Matching | undefined => {
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
  const [look, looking] = api.useSheetLookMutation();
  const [take, taking] = api.useSheetTakeMutation();
  const seen = looking.data;
  const back = () => router.navigate(`/setup/${id}`);
  useShortcuts({ Escape: back });

  const open = async (file: File) => {
    setWrong(null);
    if (file.size > LARGEST) return setWrong(t('setup.tooLarge'));
    const next = { file: file.name, data: await base64Of(file) };
    setChosen(next);
    const matching = keptMatching(id);
    await look({ id, ...next, ...(matching ? { matching } : {}) });
  };
  const match = (column: string, heading: string | null) => {
    const matching = { ...seen!.matching, [column]: heading };
    remember(`matching-${id}`, JSON.stringify(matching));
    void look({ id, ...chosen!, matching });
  };
  const another = () => {
    setChosen(null);
    setJob(null);
    looking.reset();
    taking.reset();
  };
  const go = async () => {
    const started = await take({ id, ...chosen!, matching: seen!.matching });
    if (started.data) setJob(started.data.job);
  };
  const count = seen ? seen.counts.new + seen.counts.changed : 0;
  const trouble = looking.error ?? taking.error;
  return (
    <Page
      title={t('setup.importTitle', { what: t(`setup.sheet.${id}`) })}
      onBack={back}
      foot={
        seen && !job ? (
          <Row gap={8} style={{ justifyContent: 'flex-end' }}>
            <Key title={t('intake.another')} onPress={another} />
            <Key
              kind="act"
              title={t('setup.take', { count })}
              disabled={count === 0}
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
          <Key
            title={t('intake.example')}
            icon="download"
            onPress={() => void Linking.openURL(addressOf({ name: 'sheetExample', id }))}
          />
        </DropPlace>
      )}
      {!chosen && <Columns sheet={sheet} />}
      {wrong && <Failed text={wrong} />}
      {trouble && <Failed text={words(troubleOf(trouble))} onRetry={another} />}
      {chosen && looking.isLoading && (
        <Column>
          <Txt>{t('intake.reading', { name: chosen.file })}</Txt>
          <Loading />
        </Column>
      )}
      {job && <JobProgress job={job} onDone={back} />}
      {chosen && seen && !job && !looking.isLoading && (
        <>
          <Txt kind="strong" live="polite">
            {t('setup.summary', {
              name: chosen.file,
              new: number(seen.counts.new),
              changed: number(seen.counts.changed),
              same: number(seen.counts.same),
              errors: t('fault.count', { count: seen.counts.errors }),
              encoding: seen.encoding,
            })}
          </Txt>
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
      <Txt kind="heading" level={2}>
        {t('setup.columns')}
      </Txt>
      {sheet.columns.map((c) => (
        <Row key={c.name} gap={12}>
          <Txt kind="mono" style={{ width: 160 }}>
            {c.name}
          </Txt>
          <Txt>{`${columnName(c.name)}${c.needed ? `, ${t('setup.needed')}` : ''}`}</Txt>
          {c.example !== '' && <Txt colour="quiet">{t('setup.asIn', { example: c.example })}</Txt>}
        </Row>
      ))}
    </Column>
  );
}

/** Which heading of the file is which column: those found stand together, those to choose come first. */
function Match({
  sheet,
  seen,
  onMatch,
}: {
  sheet: SheetKind;
  seen: SheetLook;
  onMatch: (column: string, heading: string | null) => void;
}) {
  const { t } = useTranslation();
  const [open, setOpen] = useState<string | null>(null);
  const unmatched = sheet.columns.filter((c) => c.needed && !seen.matching[c.name]);
  const [all, setAll] = useState(unmatched.length > 0);
  const used = new Set(Object.values(seen.matching));
  const free = seen.heading.filter((h) => h !== '' && !used.has(h));
  return (
    <Card gap={8}>
      <Row gap={12} style={{ justifyContent: 'space-between' }}>
        <Txt kind="heading" level={2}>
          {t('setup.matching')}
        </Txt>
        <Key size="small" title={t(all ? 'setup.less' : 'setup.more')} pressed={all} onPress={() => setAll(!all)} />
      </Row>
      {free.length > 0 && <Txt colour="quiet">{t('setup.unused', { headings: free.join(', ') })}</Txt>}
      {all &&
        sheet.columns.map((c) => (
          <Column key={c.name} gap={4}>
            <Row gap={12}>
              <Txt style={{ width: 170 }}>{columnName(c.name)}</Txt>
              <Key
                size="small"
                title={seen.matching[c.name] ?? t(c.needed ? 'setup.choose' : 'setup.leftOut')}
                label={t('setup.headingOf', { column: columnName(c.name) })}
                pressed={open === c.name}
                onPress={() => setOpen(open === c.name ? null : c.name)}
              />
              {c.needed && !seen.matching[c.name] && <Signal kind="refused" text={t('setup.needed')} />}
            </Row>
            {open === c.name && (
              <Row gap={4}>
                {[null, ...seen.heading.filter((h) => h !== '')].map((h) => (
                  <Key
                    key={h ?? ''}
                    size="small"
                    title={h ?? t('setup.leftOut')}
                    pressed={(seen.matching[c.name] ?? null) === h}
                    onPress={() => {
                      setOpen(null);
                      onMatch(c.name, h);
                    }}
                  />
                ))}
              </Row>
            )}
          </Column>
        ))}
    </Card>
  );
}

/** What a new row holds beside its key, where it differs from what an empty cell stands for. */
const told = (sheet: SheetKind, row: SheetRow) =>
  sheet.columns
    .filter((c) => !sheet.key.includes(c.name) && !c.secret && row[c.name] !== (c.otherwise ?? false))
    .map((c) => shown(c, row))
    .filter((value) => value !== '–')
    .join(', ');

function Preview({ sheet, seen }: { sheet: SheetKind; seen: SheetLook }) {
  const { t } = useTranslation();
  if (seen.rows.length === 0)
    return seen.counts.same > 0 ? <Signal kind="quiet" text={t('setup.allSame')} size="body" /> : null;
  const columns: TableColumn<SheetLook['rows'][number]>[] = [
    {
      key: 'row',
      title: t('fault.row'),
      width: 60,
      fixed: true,
      align: 'right',
      cell: (r) => <Txt kind="number">{String(r.row)}</Txt>,
    },
    ...sheet.key.slice(0, 2).map((name) => ({
      key: name,
      title: columnName(name),
      width: 1,
      cell: (r: SheetLook['rows'][number]) => (
        <Txt kind="strong" lines={1}>
          {String(r.values[name] ?? '')}
        </Txt>
      ),
    })),
    {
      key: 'outcome',
      title: t('intake.outcomeTitle'),
      width: 3,
      cell: (r) => (
        <Txt lines={1}>
          {r.outcome === 'new'
            ? `${t('intake.outcome.new')}: ${told(sheet, r.values)}`
            : `${t('intake.outcome.changed')}: ${r.differences.map(differenceText).join('; ')}`}
        </Txt>
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
        <Txt kind="small" colour="quiet">
          {t('release.more', { count: seen.counts.new + seen.counts.changed - seen.rows.length })}
        </Txt>
      )}
    </Column>
  );
}
