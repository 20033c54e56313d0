import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { HoldRuleRow } from '@hand-relay/contract';
import { faultOf, type Conditions } from '@hand-relay/core/deciding/conditions';
import { holdFields, stages, type Stage } from '@hand-relay/core/deciding/holds';
import { api, notify, troubleOf, useAppDispatch, words, useHouse } from '../state/index.ts';
import {
  Card,
  Column,
  ConditionsBuilder,
  Empty,
  Failed,
  Field,
  Button,
  Loading,
  Row,
  Sheet,
  Signal,
  Text,
  useShortcuts,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { Stops } from './Stops.tsx';

type Draft = Omit<HoldRuleRow, 'id' | 'holding'> & { id: string | null };
const fresh: Draft = {
  id: null,
  name: '',
  text: '',
  conditions: { match: 'all', list: [] },
  stops: [...stages],
  lifters: [],
  retired: false,
};

/** A condition as a sentence. */
function useSentence() {
  const { t } = useTranslation();
  const { choiceName } = useHouse();
  return ({ match, list }: Conditions) =>
    list
      .map(({ field, test, value }) => {
        const kind = holdFields.find((f) => f.name === field);
        const hasText = (kind && 'of' in kind) || kind?.kind === 'yes-no';
        const shown = choiceName(field, value) ?? (hasText ? t(`conditions.choice.${value}`) : value);
        return `${t(`hold.field.${field}`)} ${t(`conditions.test.${test}`)} ${test === 'is-empty' ? '' : shown}`.trim();
      })
      .join(match === 'all' ? ` ${t('hold.and')} ` : ` ${t('hold.or')} `);
}

/** The site's own rules for holding orders: when, what people are told, what is stopped, who may lift. */
export function HoldRulesView() {
  const { t } = useTranslation();
  const router = useRouter();
  const sentence = useSentence();
  const { data, error, refetch } = api.useHoldRulesQuery();
  const [editing, setEditing] = useState<Draft | null>(null);
  const back = () => router.navigate('/setup');
  useShortcuts({ Escape: back }, editing === null);
  return (
    <Page
      title={t('hold.rules')}
      onBack={back}
      foot={
        <Row>
          <Button kind="act" title={t('hold.newRule')} onPress={() => setEditing(fresh)} />
        </Row>
      }
    >
      <Text colour="quiet">{t('hold.about')}</Text>
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading rows={3} />}
      {data?.rules.length === 0 && <Empty title={t('hold.noneTitle')} text={t('hold.noneText')} />}
      {data?.rules.map((rule) => (
        <Card key={rule.id} gap={6}>
          <Row gap={12} style={{ justifyContent: 'space-between' }}>
            <Text kind="heading" level={2}>
              {rule.name}
            </Text>
            {rule.retired ? (
              <Signal kind="quiet" text={t('hold.retired')} />
            ) : (
              rule.holding > 0 && <Signal kind="caution" text={t('hold.holding', { count: rule.holding })} />
            )}
          </Row>
          <Text>{rule.text}</Text>
          <Text kind="small" colour="quiet">
            {t('hold.when', { conditions: sentence(rule.conditions) })}
          </Text>
          <Text kind="small" colour="quiet">
            {t('hold.stops', { stages: rule.stops.map((s) => t(`hold.stage.${s}`)).join(', ') })} ·{' '}
            {t('hold.liftedBy', { roles: rule.lifters.join(', ') })}
          </Text>
          <Row>
            <Button title={t('hold.change', { name: rule.name })} onPress={() => setEditing(rule)} />
          </Row>
        </Card>
      ))}
      {editing && <RuleSheet rule={editing} onClose={() => setEditing(null)} />}
    </Page>
  );
}

function RuleSheet({ rule, onClose }: { rule: Draft; onClose: () => void }) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const { withChoices, choiceName } = useHouse();
  const [draft, setDraft] = useState(rule);
  const [asked, setAsked] = useState(false);
  const { data: roles } = api.useSheetRowsQuery('roles');
  const [save, { isLoading, error }] = api.useSaveHoldRuleMutation();
  const set = (change: Partial<Draft>) => setDraft({ ...draft, ...change });
  const names = (roles?.rows ?? []).filter((r) => r['retired'] !== true).map((r) => String(r['role']));
  const wrong = {
    name: draft.name.trim() === '',
    text: draft.text.trim().length < 3,
    list: draft.conditions.list.length === 0 || draft.conditions.list.some((c) => faultOf(c, holdFields) !== null),
    lifters: draft.lifters.length === 0,
  };
  const go = async (retired: boolean) => {
    setAsked(true);
    if (Object.values(wrong).includes(true) || draft.stops.length === 0) return;
    const { id, name, text, conditions, stops, lifters } = draft;
    const done = await save({ id, name: name.trim(), text: text.trim(), conditions, stops, lifters, retired });
    if (!done.data) return;
    send(notify({ kind: 'done', text: t(retired ? 'hold.ruleRetired' : 'hold.ruleSaved', { name: name.trim() }) }));
    onClose();
  };
  return (
    <Sheet
      title={rule.id ? rule.name : t('hold.newRule')}
      onClose={onClose}
      keys={
        <>
          <Button title={t('release.cancel')} onPress={onClose} />
          {rule.id && !rule.retired && <Button kind="danger" title={t('hold.retire')} onPress={() => void go(true)} />}
          <Button kind="act" title={t('hold.save')} busy={isLoading} onPress={() => void go(false)} />
        </>
      }
    >
      <Column gap={12}>
        <Field
          label={t('hold.name')}
          value={draft.name}
          onChange={(name) => set({ name })}
          error={asked && wrong.name ? t('hold.nameNeeded') : undefined}
        />
        <Field
          label={t('hold.told')}
          value={draft.text}
          onChange={(text) => set({ text })}
          error={asked && wrong.text ? t('order.reasonNeeded') : undefined}
        />
        <View style={{ gap: 6 }}>
          <Text kind="label" colour="quiet">
            {t('hold.whenTitle')}
          </Text>
          <ConditionsBuilder
            fields={withChoices(holdFields)}
            choiceName={choiceName}
            names="hold.field"
            value={draft.conditions}
            onChange={(conditions) => set({ conditions })}
          />
          {asked && draft.conditions.list.length === 0 && (
            <Text kind="small" colour="refused">
              {t('hold.conditionNeeded')}
            </Text>
          )}
        </View>
        <Stops value={draft.stops} onChange={(stops: Stage[]) => set({ stops })} />
        <View role="group" aria-label={t('hold.lifters')} style={{ gap: 4 }}>
          <Text kind="label" colour="quiet">
            {t('hold.lifters')}
          </Text>
          <Row gap={4}>
            {names.map((name) => (
              <Button
                key={name}
                title={name}
                size="small"
                pressed={draft.lifters.includes(name)}
                onPress={() =>
                  set({
                    lifters: draft.lifters.includes(name)
                      ? draft.lifters.filter((l) => l !== name)
                      : [...draft.lifters, name],
                  })
                }
              />
            ))}
          </Row>
          {asked && wrong.lifters && (
            <Text kind="small" colour="refused">
              {t('hold.lifterNeeded')}
            </Text>
          )}
        </View>
        {error && <Failed text={words(troubleOf(error))} />}
      </Column>
    </Sheet>
  );
}
