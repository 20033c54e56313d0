import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { PackagingList } from '@hand-relay/contract';
import { accountings } from '@hand-relay/core/handling/packaging';
import { api, notify, troubleOf, useAppDispatch, words } from '../state/index.ts';
import { Button, Checkbox, Choice, Column, Failed, Field, Row, Sheet } from '../ui/index.ts';

type Type = PackagingList['types'][number];
/** What somebody does with a type: a number of it came, is there or was ordered, or how it is accounted for. */
export type Doing = 'received' | 'counted' | 'ordered' | 'rule';

const MOST = 1_000_000;
const whole = (text: string) => (/^\d{1,7}$/.test(text) ? Number(text) : null);
const shown = (value: number | null) => (value === null ? '' : String(value));

export function PackagingSheet({ type, what, onClose }: { type: Type; what: Doing; onClose: () => void }) {
  return what === 'rule' ? (
    <RuleSheet type={type} onClose={onClose} />
  ) : (
    <NumberSheet type={type} what={what} onClose={onClose} />
  );
}

function NumberSheet({ type, what, onClose }: { type: Type; what: Exclude<Doing, 'rule'>; onClose: () => void }) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const [act, { error, isLoading }] = api.useActOnPackagingMutation();
  const first = { counted: type.onHand, ordered: type.propose || type.lot, received: type.onOrder || type.lot }[what];
  const [typed, setTyped] = useState(String(first));
  const units = whole(typed);
  const least = what === 'counted' ? 0 : 1;
  const good = units !== null && units >= least && units <= MOST;
  const go = async () => {
    if (!good) return;
    const done = await act({ id: type.id, act: what, units });
    if (!done.data) return;
    send(notify({ kind: 'done', text: t(`packaging.done.${what}`, { units, name: type.name }) }));
    onClose();
  };
  return (
    <Sheet
      title={t(`packaging.ask.${what}`, { name: type.name })}
      onClose={onClose}
      keys={
        <Button
          kind="act"
          title={t(`packaging.go.${what}`)}
          disabled={!good}
          busy={isLoading}
          onPress={() => void go()}
        />
      }
    >
      <Field
        numeric
        focus
        label={t('packaging.units')}
        value={typed}
        onChange={(text) => setTyped(text.replace(/\D/g, ''))}
        onSubmit={() => void go()}
        error={good ? undefined : t('packaging.between', { least, most: MOST })}
      />
      {error && <Failed text={words(troubleOf(error))} />}
    </Sheet>
  );
}

function RuleSheet({ type, onClose }: { type: Type; onClose: () => void }) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const [change, { error, isLoading }] = api.useChangePackagingMutation();
  const [accounting, setAccounting] = useState(type.accounting);
  const [ownLine, setOwnLine] = useState(type.ownLine);
  const [typed, setTyped] = useState({
    reorderPoint: shown(type.reorderPoint),
    lot: String(type.lot),
    lookAfterUsed: shown(type.lookAfterUsed),
    lookAfterDays: shown(type.lookAfterDays),
  });
  const stocked = accounting === 'daily' || accounting === 'with-unit';
  const fields = stocked
    ? (['reorderPoint', 'lot'] as const)
    : accounting === 'expense'
      ? (['lookAfterUsed', 'lookAfterDays'] as const)
      : [];
  const wrong = (name: keyof typeof typed) => {
    const value = typed[name];
    if (value === '' && name !== 'lot') return undefined;
    const least = name === 'reorderPoint' ? 0 : 1;
    const most = name === 'lookAfterDays' ? 365 : MOST;
    const n = whole(value);
    return n !== null && n >= least && n <= most ? undefined : t('packaging.between', { least, most });
  };
  const good = fields.every((name) => !wrong(name));
  const go = async () => {
    const done = await change({
      id: type.id,
      accounting,
      ownLine,
      reorderPoint: whole(typed.reorderPoint),
      lot: whole(typed.lot) ?? 1,
      lookAfterUsed: whole(typed.lookAfterUsed),
      lookAfterDays: whole(typed.lookAfterDays),
    });
    if (!done.data) return;
    send(notify({ kind: 'done', text: t('packaging.done.rule', { name: type.name }) }));
    onClose();
  };
  return (
    <Sheet
      title={t('packaging.ask.rule', { name: type.name })}
      onClose={onClose}
      keys={
        <Button kind="act" title={t('packaging.go.rule')} disabled={!good} busy={isLoading} onPress={() => void go()} />
      }
    >
      <Column gap={12}>
        <Choice
          bare
          label={t('packaging.how')}
          value={accounting}
          onChange={setAccounting}
          options={accountings.map((value) => ({ value, title: t(`packaging.accounting.${value}`) }))}
        />
        <Row gap={12} style={{ alignItems: 'flex-start' }}>
          {fields.map((name) => (
            <View key={name} style={{ flexGrow: 1, flexBasis: 160 }}>
              <Field
                numeric
                label={t(`packaging.field.${name}`)}
                value={typed[name]}
                onChange={(text) => setTyped({ ...typed, [name]: text.replace(/\D/g, '') })}
                error={wrong(name)}
              />
            </View>
          ))}
        </Row>
        {accounting === 'with-unit' && (
          <Checkbox shown label={t('packaging.ownLine')} checked={ownLine} onPress={() => setOwnLine(!ownLine)} />
        )}
        {error && <Failed text={words(troubleOf(error))} />}
      </Column>
    </Sheet>
  );
}
