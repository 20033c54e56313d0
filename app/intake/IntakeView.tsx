import { useRouter } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { Linking } from 'react-native';
import { addressOf } from '../state/index.ts';
import { Button, DropPlace, Row, Signal, Text, useShortcuts } from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { DeskTabs } from '../desk/index.ts';
import { Imports } from './Imports.tsx';
import { IntakeFile } from './IntakeFile.tsx';
import { sameHeading, toTake } from './layout.ts';
import { useOrderFiles } from './useOrderFiles.ts';

/** Takes in order files: dropped or chosen, looked at before anything is written, the good orders of all taken at once. */
export function IntakeView() {
  const { t } = useTranslation();
  const router = useRouter();
  const { files, open, change, name, drop, takeAll, clear, taken } = useOrderFiles();
  useShortcuts({ Escape: () => router.navigate('/desk') });
  const orders = files.reduce((n, f) => n + (f.result ? toTake(f.result) : 0), 0);
  // Files with the same headings are asked about once.
  const unsure = files
    .filter((f, i) => !files.slice(0, i).some((other) => sameHeading(other.result, f.result)))
    .reduce((n, f) => n + (f.result?.file?.guesses.length ?? 0), 0);
  const reading = files.some((f) => !f.result && !f.trouble);
  const take = async () => {
    if (await takeAll()) router.navigate('/desk');
  };
  return (
    <Page
      title={t('intake.title')}
      aside={<DeskTabs at="intake" />}
      foot={
        files.length > 0 && (
          <Row gap={8} style={{ justifyContent: 'flex-end' }}>
            {unsure > 0 && <Signal kind="caution" text={t('intake.unsure', { count: unsure })} />}
            {taken !== null && <Text live="polite">{t('intake.wait', { n: taken, count: files.length + taken })}</Text>}
            <Button title={t('intake.another')} onPress={clear} />
            <Button
              kind="act"
              title={t('intake.take', { count: orders })}
              disabled={orders === 0 || unsure > 0 || reading}
              busy={taken !== null}
              onPress={() => void take()}
            />
          </Row>
        )
      }
    >
      {files.length === 0 && (
        <>
          <DropPlace
            title={t('intake.drop')}
            text={t('intake.columns')}
            accept=".csv,.txt,.tsv,.xlsx,.json,.xml,text/csv,text/plain,application/json,text/xml,application/xml"
            many
            onFiles={(chosen) => void open(chosen)}
          >
            <Button
              title={t('intake.example')}
              icon="download"
              onPress={() => void Linking.openURL(addressOf({ name: 'orderExample' }))}
            />
          </DropPlace>
          <Imports />
        </>
      )}
      {files.map((file) => (
        <IntakeFile
          key={file.key}
          file={file}
          alone={files.length === 1}
          onLayout={(part) => change(file, part)}
          onSender={(sender) => name(file, sender)}
          onDrop={() => drop(file.key)}
        />
      ))}
    </Page>
  );
}
