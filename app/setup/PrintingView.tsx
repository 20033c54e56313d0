import { useGlobalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Linking, useWindowDimensions, View } from 'react-native';
import type { PrintJob } from '@hand-relay/contract';
import { addressOf, api, troubleOf, useMe, words } from '../state/index.ts';
import { clock } from '../text/index.ts';
import {
  Card,
  Choice,
  Column,
  Empty,
  Failed,
  Field,
  Illustration,
  Button,
  Loading,
  Row,
  Sheet,
  Signal,
  Text,
  useShortcuts,
  WIDE,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';

const kinds = { waiting: 'caution', printed: 'done', failed: 'refused' } as const;

/** The printer that ships with the product: what was printed, where and by whom, as it would come out of a real one. */
export function PrintingView() {
  const { t } = useTranslation();
  const router = useRouter();
  const { printer } = useGlobalSearchParams<{ printer?: string }>();
  const { data: printers } = api.useSheetRowsQuery('printers');
  const { data, error, refetch } = api.usePrintJobsQuery({ printer });
  const [print, printing] = api.usePrintMutation();
  const me = useMe();
  /** How many numbers are printed ahead for cartons that pickers fill. */
  const [numbers, setNumbers] = useState('24');
  const printNumbers = () => void print({ kind: 'carton-numbers', of: numbers, ...(printer ? { printer } : {}) });
  useShortcuts({ Escape: () => router.navigate('/setup') });
  const inUse = (printers?.rows ?? []).filter((r) => r['retired'] !== true);
  return (
    <Page
      title={t('printing.title')}
      onBack={() => router.navigate('/setup')}
      aside={
        <Row gap={4}>
          <Button size="small" title={t('setup.sheet.printers')} onPress={() => router.navigate('/setup/printers')} />
          <Button
            size="small"
            icon="printer-outline"
            title={t('printing.test')}
            disabled={inUse.length === 0}
            busy={printing.isLoading}
            onPress={() => void print({ kind: 'test-page', ...(printer ? { printer } : {}) })}
          />
        </Row>
      }
    >
      <Text colour="quiet" style={{ maxWidth: 720 }}>
        {t('printing.about')}
      </Text>
      {inUse.length > 0 && (
        <Choice
          bare
          label={t('setup.sheet.printers')}
          value={printer ?? ''}
          onChange={(value) => router.setParams({ printer: value || undefined })}
          options={[
            { value: '', title: t('printing.all') },
            ...inUse.map((r) => ({ value: String(r['printer']), title: String(r['printer']) })),
          ]}
        />
      )}
      {printing.error && <Failed text={words(troubleOf(printing.error))} />}
      {(me.settings.picking.one.drop === 'carton' || me.settings.picking.many.drop === 'carton') && (
        <Row gap={8} style={{ alignItems: 'flex-end' }}>
          <View style={{ width: 240 }}>
            <Field
              label={t('printing.numbers')}
              numeric
              value={numbers}
              onChange={(v) => setNumbers(v.replace(/\D/g, '').slice(0, 3))}
              onSubmit={printNumbers}
            />
          </View>
          <Button title={t('printing.numbersGo')} busy={printing.isLoading} onPress={printNumbers} />
        </Row>
      )}
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading rows={6} />}
      {data?.jobs.length === 0 && (
        <Empty
          title={t('printing.none')}
          text={t(inUse.length > 0 ? 'printing.noneText' : 'printing.noPrinter')}
          {...(inUse.length > 0
            ? {}
            : { action: { title: t('setup.sheet.printers'), onPress: () => router.navigate('/setup/printers') } })}
        />
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
        {data?.jobs.map((job) => (
          <Job key={job.id} job={job} />
        ))}
      </View>
    </Page>
  );
}

function Job({ job }: { job: PrintJob }) {
  const { t } = useTranslation();
  const me = useMe();
  const { width } = useWindowDimensions();
  const [large, setLarge] = useState(false);
  const [done, { error }] = api.usePrintJobDoneMutation();
  const picture = addressOf({ name: 'printJobPng', id: job.id });
  const pdf = () => void Linking.openURL(addressOf({ name: 'printJobPdf', id: job.id }));
  return (
    <Card gap={8} pad={12} style={{ width: width >= WIDE ? 350 : '100%' }}>
      <Row gap={12} style={{ flexWrap: 'nowrap', alignItems: 'flex-start' }}>
        <Illustration
          uri={picture}
          words={t('printing.picture', { title: job.title })}
          style={{ width: 96, height: 128 }}
        />
        <Column gap={2} style={{ flexShrink: 1 }}>
          <Text kind="strong">{job.title}</Text>
          <Text kind="small" colour="quiet">
            {t('printing.where', { printer: job.printer, station: job.station || t('printing.anywhere') })}
          </Text>
          <Text kind="small" colour="quiet">
            {t('printing.by', { person: job.person, time: clock(job.at, me.site.timeZone) })}
          </Text>
          {job.copies > 1 && (
            <Text kind="small" colour="quiet">
              {t('printing.copies', { count: job.copies })}
            </Text>
          )}
          <Signal
            kind={kinds[job.state]}
            text={[t(`printing.state.${job.state}`), job.note === 'no-printer' ? t('printing.nowhere') : job.note]
              .filter(Boolean)
              .join(': ')}
          />
        </Column>
      </Row>
      {error && <Failed text={words(troubleOf(error))} />}
      <Row gap={4}>
        <Button
          size="small"
          title={t('printing.look')}
          label={`${t('printing.look')}: ${job.title}`}
          onPress={() => setLarge(true)}
        />
        <Button size="small" title={t('printing.pdf')} label={`${t('printing.pdf')}: ${job.title}`} onPress={pdf} />
        {job.state === 'waiting' ? (
          <Button
            size="small"
            title={t('printing.taken')}
            onPress={() => void done({ id: job.id, state: 'printed', note: '' })}
          />
        ) : (
          <Button
            size="small"
            title={t('printing.again')}
            onPress={() => void done({ id: job.id, state: 'waiting', note: '' })}
          />
        )}
      </Row>
      {large && (
        <Sheet
          title={job.title}
          onClose={() => setLarge(false)}
          keys={
            <>
              <Button title={t('printing.png')} onPress={() => void Linking.openURL(picture)} />
              <Button title={t('printing.pdf')} onPress={pdf} />
              <Button kind="act" title={t('notice.close')} onPress={() => setLarge(false)} />
            </>
          }
        >
          <Illustration
            uri={picture}
            words={t('printing.picture', { title: job.title })}
            style={{ width: '100%', height: 480 }}
          />
        </Sheet>
      )}
    </Card>
  );
}
