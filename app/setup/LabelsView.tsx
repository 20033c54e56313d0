import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { labelled, labelSizeNames, type LabelChoice, type LabelSize, type Labelled } from '@hand-relay/contract';
import { addressOf, api, notify, troubleOf, useAppDispatch, words } from '../state/index.ts';
import {
  Button,
  Checkbox,
  Choice,
  DataTable,
  Empty,
  Failed,
  Field,
  Loading,
  Row,
  Text,
  useShortcuts,
  type TableColumn,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';

/** Letters of an address that a browser and a server surely take. */
const LONGEST = 7500;

/** Labels for what is scanned: chosen, in a size, looked at or printed. */
export function LabelsView() {
  const { t } = useTranslation();
  const router = useRouter();
  const send = useAppDispatch();
  const [what, setWhat] = useState<Labelled>('carts');
  const [size, setSize] = useState<LabelSize>('sheet');
  const [find, setFind] = useState('');
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const { currentData: data, error, refetch } = api.useLabelChoicesQuery({ what });
  const [print, printing] = api.usePrintMutation();
  useShortcuts({ Escape: () => router.navigate('/setup') });
  const wanted = find.trim().toLowerCase();
  const shown = (data?.labels ?? []).filter((l) => !wanted || `${l.code} ${l.name}`.toLowerCase().includes(wanted));
  // Without marks all that is found are printed.
  const codes = marked.size > 0 ? [...marked] : wanted ? shown.map((l) => l.code) : [];
  const count = codes.length || (data?.labels.length ?? 0);
  const list = codes.join(',');
  const toggle = (code: string) => {
    const next = new Set(marked);
    if (!next.delete(code)) next.add(code);
    setMarked(next);
  };
  const go = async () => {
    const done = await print({ kind: 'labels', labels: { what, size, codes } });
    if (done.data)
      send(
        notify({
          kind: 'done',
          text: t('labels.sent', { count, printer: done.data.printer }),
          link: '/setup/printing',
        }),
      );
  };
  const columns: TableColumn<LabelChoice>[] = [
    {
      key: 'mark',
      title: '',
      width: 44,
      fixed: true,
      cell: (l) => (
        <Checkbox
          checked={marked.has(l.code)}
          onPress={() => toggle(l.code)}
          label={t('labels.mark', { code: l.code })}
        />
      ),
    },
    { key: 'code', title: t('labels.code'), width: 1, cell: (l) => <Text kind="strong">{l.code}</Text> },
    { key: 'name', title: t('labels.name'), width: 2, cell: (l) => <Text lines={1}>{l.name}</Text> },
  ];
  return (
    <Page
      title={t('labels.title')}
      filled
      onBack={() => router.navigate('/setup')}
      foot={
        <Row gap={8} style={{ justifyContent: 'flex-end' }}>
          <Button
            title={t('labels.look')}
            disabled={count === 0 || list.length > LONGEST}
            onPress={() => window.open(addressOf({ name: 'labels', query: { what, size, codes: list } }), '_blank')}
          />
          <Button
            kind="act"
            icon="printer-outline"
            title={t('labels.print', { count })}
            disabled={count === 0}
            busy={printing.isLoading}
            onPress={() => void go()}
          />
        </Row>
      }
    >
      <View style={{ paddingHorizontal: 20, paddingBottom: 8, gap: 10 }}>
        <Choice
          bare
          label={t('labels.what')}
          value={what}
          onChange={(next) => {
            setWhat(next);
            setMarked(new Set());
            setFind('');
          }}
          options={labelled.map((value) => ({ value, title: t(`labels.kind.${value}`) }))}
        />
        <Choice
          label={t('labels.size')}
          value={size}
          onChange={setSize}
          options={labelSizeNames.map((value) => ({ value, title: t(`labels.sizes.${value}`) }))}
        />
        <View style={{ maxWidth: 360 }}>
          <Field bare label={t('labels.find')} placeholder={t('labels.find')} value={find} onChange={setFind} />
        </View>
        {printing.error && <Failed text={words(troubleOf(printing.error))} />}
      </View>
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading rows={6} />}
      {data && shown.length === 0 && <Empty title={t('labels.none')} text={t('labels.noneText')} />}
      {shown.length > 0 && (
        <DataTable
          columns={columns}
          entries={shown.map((row) => ({ kind: 'row' as const, key: row.code, row }))}
          rowHeight={44}
          onOpen={(l) => toggle(l.code)}
          nameOf={(l) => `${l.code}, ${l.name}`}
        />
      )}
    </Page>
  );
}
