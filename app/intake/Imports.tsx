import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { OrderImport } from '@hand-relay/contract';
import { api, notify, troubleOf, useAppDispatch, useMe, useNow, words } from '../state/index.ts';
import { moment, number } from '../text/index.ts';
import {
  Button,
  Card,
  Column,
  Failed,
  FaultTable,
  Field,
  Loading,
  Row,
  Signal,
  Text,
  useSettled,
} from '../ui/index.ts';

/** What was imported, the newest first, each to be undone while nothing of it was released; and whose files are known. */
export function Imports() {
  const { t } = useTranslation();
  const [find, setFind] = useState('');
  const asked = useSettled(find);
  const { data, error, refetch } = api.useOrderImportsQuery({ find: asked });
  const { data: known } = api.useOrderSendersQuery();
  return (
    <Column gap={12}>
      <Row gap={16} style={{ justifyContent: 'space-between', alignItems: 'flex-end' }}>
        <Text kind="heading" level={2}>
          {t('intake.past.title')}
        </Text>
        <View style={{ width: 240 }}>
          <Field
            label={t('intake.past.find')}
            bare
            placeholder={t('intake.past.find')}
            value={find}
            onChange={setFind}
          />
        </View>
      </Row>
      {known?.folder && <Text colour="quiet">{t('intake.past.folder', { folder: known.folder })}</Text>}
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading />}
      {data?.imports.length === 0 && <Text colour="quiet">{t('intake.past.none')}</Text>}
      {data?.imports.map((each) => (
        <OneImport key={each.id} of={each} />
      ))}
      {known && known.senders.length > 0 && <Senders names={known.senders.map((s) => s.name)} />}
    </Column>
  );
}

function OneImport({ of }: { of: OrderImport }) {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const send = useAppDispatch();
  const [undo, { isLoading }] = api.useUndoImportMutation();
  const [open, setOpen] = useState(false);
  const takeBack = async () => {
    const { data, error } = await undo(of.id);
    send(
      notify(
        data
          ? { kind: 'done', text: t('intake.past.wasUndone', { document: of.document, ...data }) }
          : { kind: 'refused', text: words(troubleOf(error)) },
      ),
    );
  };
  const counts = (['new', 'changed', 'same'] as const).flatMap((outcome) =>
    of[outcome] === 0 ? [] : [t(`intake.counted.${outcome}`, { n: number(of[outcome]) })],
  );
  return (
    <Card gap={8} pad={12}>
      <Row gap={12} style={{ justifyContent: 'space-between' }}>
        <Column gap={2} style={{ flexShrink: 1 }}>
          <Text kind="strong">{of.sender ? `${of.document} · ${of.sender}` : of.document}</Text>
          <Text kind="small" colour="quiet">
            {[moment(of.at, me.site.timeZone, now), of.person, counts.join(', ')].filter(Boolean).join(' · ')}
          </Text>
        </Column>
        <Row gap={8}>
          {of.faults > 0 && (
            <Button
              size="small"
              icon={open ? 'chevron-down' : 'chevron-right'}
              title={t('intake.past.errors', { count: of.faults })}
              onPress={() => setOpen(!open)}
            />
          )}
          {of.state === 'undone' && <Signal kind="quiet" text={t('intake.past.undone')} />}
          {of.state === 'done' && of.new + of.changed > 0 && (
            <Button size="small" title={t('notice.undo')} busy={isLoading} onPress={() => void takeBack()} />
          )}
        </Row>
      </Row>
      {open && (
        <FaultTable
          faults={of.errors.map(({ order, ...e }) => ({
            ...e,
            expected: t(`intake.expected.${e.expected}`),
            more: { order },
          }))}
        />
      )}
    </Card>
  );
}

/** Senders whose layout is remembered, each to be forgotten. */
function Senders({ names }: { names: string[] }) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const [forget] = api.useForgetSenderMutation();
  const drop = async (name: string) => {
    const { data } = await forget({ name });
    if (data) send(notify({ kind: 'done', text: t('intake.past.forgotten', { sender: name }) }));
  };
  return (
    <Column gap={8}>
      <Text kind="heading" level={2}>
        {t('intake.past.senders')}
      </Text>
      <Row gap={8}>
        {names.map((name) => (
          <Button
            key={name}
            size="small"
            icon="close"
            title={name}
            label={t('intake.past.forget', { sender: name })}
            onPress={() => void drop(name)}
          />
        ))}
      </Row>
    </Column>
  );
}
