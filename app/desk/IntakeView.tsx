import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Linking, View } from 'react-native';
import type { IntakeResult } from '@hand-relay/contract';
import { addressOf, api, notify, troubleOf, useAppDispatch, words } from '../state/index.ts';
import { i18n, number } from '../text/index.ts';
import {
  base64Of,
  Column,
  DataTable,
  DropPlace,
  Failed,
  FaultTable,
  Button,
  Loading,
  Row,
  Signal,
  Text,
  useShortcuts,
  type TableColumn,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { DeskTabs } from './DeskTabs.tsx';

const LARGEST = 20_000_000;

interface Chosen {
  name: string;
  /** The file's bytes in base64. */
  data: string;
}

/** Takes in an order file: dropped or chosen, looked at before anything is written, the good orders taken. */
export function IntakeView() {
  const { t } = useTranslation();
  const router = useRouter();
  const send = useAppDispatch();
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const [look, looking] = api.useIntakeMutation();
  const [take, taking] = api.useIntakeMutation();
  const preview = looking.data;
  useShortcuts({ Escape: () => router.navigate('/desk') });

  const open = async (file: File) => {
    setWrong(null);
    if (file.size > LARGEST) return setWrong(t('intake.tooLarge'));
    const data = await base64Of(file);
    setChosen({ name: file.name, data });
    await look({ mode: 'preview', document: file.name, file: data });
  };
  const another = () => {
    setChosen(null);
    looking.reset();
    taking.reset();
  };
  const takeAll = async () => {
    if (!chosen) return;
    const done = await take({ mode: 'take', document: chosen.name, file: chosen.data });
    if (!done.data) return;
    send(notify({ kind: 'done', text: t('intake.taken', { count: toTake(done.data) }) }));
    another();
    router.navigate('/desk');
  };
  const trouble = looking.error ?? taking.error;
  return (
    <Page
      title={t('intake.title')}
      aside={<DeskTabs at="intake" />}
      foot={
        preview && (
          <Row gap={8} style={{ justifyContent: 'flex-end' }}>
            <Button title={t('intake.another')} onPress={another} />
            <Button
              kind="act"
              title={t('intake.take', { count: toTake(preview) })}
              disabled={toTake(preview) === 0}
              busy={taking.isLoading}
              onPress={() => void takeAll()}
            />
          </Row>
        )
      }
    >
      {!chosen && (
        <DropPlace
          title={t('intake.drop')}
          text={t('intake.columns')}
          accept=".csv,.txt,.xlsx,.json,.xml,text/csv,text/plain,application/json,text/xml,application/xml"
          onFile={(file) => void open(file)}
        >
          <Button
            title={t('intake.example')}
            icon="download"
            onPress={() => void Linking.openURL(addressOf({ name: 'orderExample' }))}
          />
        </DropPlace>
      )}
      {wrong && <Failed text={wrong} />}
      {trouble && <Failed text={words(troubleOf(trouble))} onRetry={another} />}
      {chosen && looking.isLoading && (
        <Column>
          <Text>{t('intake.reading', { name: chosen.name })}</Text>
          <Loading />
        </Column>
      )}
      {chosen && preview && <Preview name={chosen.name} result={preview} />}
    </Page>
  );
}

function toTake(result: IntakeResult): number {
  return result.orders.filter((o) => o.outcome === 'new' || o.outcome === 'changed' || o.outcome === 'adapts').length;
}

function Preview({ name, result }: { name: string; result: IntakeResult }) {
  const { t } = useTranslation();
  const count = (outcome: string) => number(result.orders.filter((o) => o.outcome === outcome).length);
  return (
    <Column gap={16}>
      <Text kind="strong" live="polite">
        {t('intake.summary', {
          name,
          new: count('new'),
          changed: count('changed'),
          adapts: count('adapts'),
          same: count('same'),
          underWay: count('under-way'),
          errors: t('fault.count', { count: result.errors.length }),
        })}
      </Text>
      {result.orders.length > 0 && toTake(result) === 0 && (
        <Signal kind="quiet" text={t('intake.nothingToTake')} size="body" />
      )}
      <FaultTable
        faults={result.errors.map(({ order, ...e }) => ({
          ...e,
          expected: t(`intake.expected.${e.expected}`),
          more: { order },
        }))}
      />
      {result.orders.length > 0 && (
        <View style={{ height: Math.min(460, 44 + result.orders.length * 44) }}>
          <DataTable
            columns={orderColumns()}
            entries={result.orders.map((row) => ({ kind: 'row', key: row.number, row }))}
            nameOf={(o) => o.number}
          />
        </View>
      )}
    </Column>
  );
}

function orderColumns(): TableColumn<IntakeResult['orders'][number]>[] {
  const t = i18n.t.bind(i18n);
  return [
    {
      key: 'number',
      title: t('intake.order'),
      width: 1,
      cell: (o) => (
        <Text kind="strong" lines={1}>
          {o.number}
        </Text>
      ),
    },
    { key: 'customer', title: t('orders.customer'), width: 1, cell: (o) => <Text lines={1}>{o.customer}</Text> },
    {
      key: 'lines',
      title: t('intake.lines'),
      width: 60,
      fixed: true,
      align: 'right',
      cell: (o) => <Text kind="number">{number(o.lines)}</Text>,
    },
    {
      key: 'outcome',
      title: t('intake.outcomeTitle'),
      width: 3,
      cell: (o) => {
        const text = t(`intake.outcome.${o.outcome}`);
        const changes = o.differences.map((d) => `${d.field}: ${d.before || '–'} → ${d.after || '–'}`).join('; ');
        return o.outcome === 'under-way' ? (
          <Signal kind="caution" text={`${text}. ${changes}`} />
        ) : (
          <Text lines={1}>{changes ? `${text}: ${changes}` : text}</Text>
        );
      },
    },
  ];
}
