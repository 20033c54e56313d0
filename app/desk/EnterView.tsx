import { useLocalSearchParams, useRouter } from 'expo-router';
import { useEffect, useRef, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View } from 'react-native';
import { type DraftOfOrder, type OrderEntered } from '@hand-relay/contract';
import { addDays, localDate, weekday } from '@hand-relay/core/calendar';
import { demandKinds } from '@hand-relay/core/handling/shipping';
import { api, notify, troubleOf, useAppDispatch, useMe, useNow, words, useHouse } from '../state/index.ts';
import { i18n } from '../text/index.ts';
import {
  Button,
  Checkbox,
  Choice,
  Column,
  DayField,
  Failed,
  Field,
  Labelled,
  Loading,
  Row,
  Sheet,
  Signal,
  Text,
  WIDE,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { CustomerField } from './CustomerField.tsx';
import { DeskTabs } from './DeskTabs.tsx';
import { differenceWords } from './differences.ts';
import { EnterLines } from './EnterLines.tsx';
import { formOf, newForm, sentOf, type EnterForm } from './enterForm.ts';

/** What was typed and not saved, by what it is of: nothing is lost when the page is left. */
const kept = new Map<string, EnterForm>();

/** Enters an order, changes one, or copies one: `?order=` and `?copy=` name it. */
export function EnterView() {
  const { order, copy } = useLocalSearchParams<{ order?: string; copy?: string }>();
  const me = useMe();
  const now = useNow();
  const { t } = useTranslation();
  const from = order ?? copy;
  const { channels, isSettled } = useHouse();
  const { data, error, refetch } = api.useOrderDraftQuery(from ?? '', { skip: !from });
  const due = nextWorkday(localDate(now, me.site.timeZone));
  const title = order
    ? t('enter.edit', { number: data?.draft.number ?? '' })
    : copy
      ? t('enter.copyOf', { number: data?.draft.number ?? '' })
      : t('enter.title');
  if (error)
    return (
      <Page title={title} aside={<DeskTabs at="orders" />}>
        <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />
      </Page>
    );
  if ((from && !data) || !isSettled) return <Loading />;
  return (
    <Entering
      key={from ?? 'new'}
      name={order ?? (copy ? `copy ${copy}` : 'new')}
      title={title}
      there={order ? data! : null}
      first={data ? formOf(data, copy ? due : null) : newForm(due, channels[0]?.code ?? '')}
      id={order ?? null}
    />
  );
}

/** Today, or Monday at a weekend. */
function nextWorkday(today: string): string {
  let day = today;
  while (weekday(day) > 5) day = addDays(day, 1);
  return day;
}

/** Faults of the fields, by their path: what the form found itself, and what the server did. */
type FaultOf = (path: string) => string | undefined;

function Entering({
  name,
  title,
  there,
  first,
  id,
}: {
  name: string;
  title: string;
  /** The order as it was read, where one is changed. */
  there: DraftOfOrder | null;
  first: EnterForm;
  id: string | null;
}) {
  const { t } = useTranslation();
  const { channels } = useHouse();
  const router = useRouter();
  const send = useAppDispatch();
  const [form, setForm] = useState<EnterForm>(() => kept.get(name) ?? first);
  const [asked, setAsked] = useState(false);
  const [look, setLook] = useState<OrderEntered | null>(null);
  const [enter, { isLoading, error }] = api.useEnterOrderMutation();
  const { data: places } = api.useDeskPlacesQuery();
  const wide = useWindowDimensions().width >= WIDE;
  const { draft, faults } = sentOf(form);
  const trouble = error ? troubleOf(error) : null;
  const fault: FaultOf = (path) => {
    const own = asked ? faults.get(path) : undefined;
    if (own) return t(`enter.${own}`);
    const message = trouble?.fields?.find((f) => f.path === path)?.message;
    return message && t(`enter.expected.${message}` as 'enter.oneLine', { defaultValue: message });
  };
  const set = (change: Partial<EnterForm>) => setForm((before) => ({ ...before, ...change }));
  const touched = useKept(name, form, first);

  const ask = (mode: 'preview' | 'take') =>
    enter({
      mode,
      id,
      version: there?.version ?? null,
      ...(id !== null || form.departure !== '' ? { departure: form.departure || null } : {}),
      draft,
    });
  const take = async () => {
    const { data } = await ask('take');
    setLook(null);
    if (!data) return;
    touched.forget();
    const undo = there
      ? {
          name: 'enterOrder' as const,
          body: { mode: 'take', id, version: data.version, departure: there.departure, draft: there.draft },
        }
      : { name: 'cancelOrder' as const, id: data.id!, body: { reason: t('change.undone') } };
    const text =
      data.outcome === 'same'
        ? t('enter.nothing')
        : t(there ? 'enter.saved' : 'enter.entered', { number: data.number });
    send(notify({ kind: 'done', text, about: data.id!, ...(data.outcome === 'same' ? {} : { undo }) }));
    router.navigate(`/desk/orders/${data.id}`);
  };
  const save = async () => {
    setAsked(true);
    if (faults.size > 0) return;
    if (id === null) return take();
    const { data } = await ask('preview');
    // Work under way is asked about, all else is done and can be undone.
    if (data?.outcome === 'adapts') setLook(data);
    else if (data) await take();
  };
  const back = () => router.navigate(id ? `/desk/orders/${id}` : '/desk');
  if (there && !there.open)
    return (
      <Page title={title} onBack={back} aside={<DeskTabs at="orders" />}>
        <Signal kind="caution" size="body" text={t('enter.closed')} />
        <Row>
          <Button title={t('enter.copy')} onPress={() => router.navigate(`/desk/enter?copy=${id}`)} />
        </Row>
      </Page>
    );
  const half = wide ? { flex: 1, minWidth: 0 } : {};
  return (
    <Page
      title={title}
      onBack={back}
      aside={<DeskTabs at="orders" />}
      foot={
        <Row gap={8} style={{ justifyContent: 'flex-end' }}>
          <Button
            title={t('release.cancel')}
            onPress={() => {
              touched.forget();
              back();
            }}
          />
          <Button
            kind="act"
            title={t(id ? 'enter.saveChange' : 'enter.save')}
            busy={isLoading}
            onPress={() => void save()}
          />
        </Row>
      }
    >
      {trouble && <Failed text={words(trouble)} />}
      <View style={{ flexDirection: wide ? 'row' : 'column', gap: wide ? 32 : 16 }}>
        <View style={[half, { gap: 12 }]}>
          <CustomerField form={form} onChange={setForm} error={fault('draft.customer')} />
          <Row gap={16} style={{ alignItems: 'flex-start' }}>
            <DayField
              label={t('enter.due')}
              value={form.due}
              onChange={(due) => set({ due })}
              error={fault('draft.due')}
            />
            <View style={{ flex: 1, minWidth: 160 }}>
              <Field label={t('order.reference')} value={form.reference} onChange={(reference) => set({ reference })} />
            </View>
          </Row>
          <Labelled label={t('enter.departure')}>
            <Choice
              bare
              label={t('enter.departure')}
              value={form.departure}
              onChange={(departure) => set({ departure })}
              options={[
                { value: '', title: id ? t('change.none') : t('enter.byChannel') },
                ...(places?.departures ?? []).map((value) => ({ value, title: value })),
              ]}
            />
          </Labelled>
          <Labelled label={t('order.priority')}>
            <Choice
              bare
              label={t('order.priority')}
              value={String(form.priority)}
              onChange={(priority) => set({ priority: Number(priority) })}
              options={['1', '2', '3', '4', '5', '6', '7', '8', '9'].map((value) => ({ value, title: value }))}
            />
          </Labelled>
          <Labelled label={t('orders.channel')}>
            <Choice
              bare
              label={t('orders.channel')}
              value={form.channel}
              onChange={(channel) => set({ channel })}
              options={channels.map((one) => ({ value: one.code, title: one.name }))}
            />
          </Labelled>
          <Row>
            <Checkbox
              shown
              label={t('order.shipComplete')}
              checked={form.shipComplete}
              onPress={() => set({ shipComplete: !form.shipComplete })}
            />
          </Row>
        </View>
        <View style={[half, { gap: 12 }]}>
          <Address form={form} onChange={set} fault={fault} />
          <Field label={t('order.noted')} value={form.note} onChange={(note) => set({ note })} />
          {id === null && (
            <Row gap={16} style={{ alignItems: 'flex-start' }}>
              <View style={{ flex: 1, minWidth: 160 }}>
                <Field
                  label={t('enter.number')}
                  placeholder={t('enter.numberDrawn')}
                  value={form.number}
                  onChange={(number) => set({ number })}
                  error={fault('draft.number')}
                />
              </View>
              <View style={{ flex: 1, minWidth: 160 }}>
                <Field label={t('enter.tags')} value={form.tags} onChange={(tags) => set({ tags })} />
              </View>
            </Row>
          )}
          <Labelled label={t('enter.kind')}>
            <Choice
              bare
              label={t('enter.kind')}
              value={form.kind}
              onChange={(kind) => set({ kind })}
              options={demandKinds.map((value) => ({ value, title: t(`enter.kinds.${value}`) }))}
            />
          </Labelled>
          {form.kind === 'transfer' && (
            <Field
              label={t('enter.toSite')}
              value={form.toSite}
              onChange={(toSite) => set({ toSite })}
              error={fault('draft.toSite')}
            />
          )}
        </View>
      </View>
      <EnterLines form={form} onChange={setForm} fault={fault} />
      {look && (
        <Sheet
          title={t('enter.confirmTitle', { number: look.number })}
          onClose={() => setLook(null)}
          keys={
            <>
              <Button title={t('release.cancel')} onPress={() => setLook(null)} />
              <Button kind="act" title={t('enter.confirm')} busy={isLoading} onPress={() => void take()} />
            </>
          }
        >
          <Text>{t('enter.confirmText')}</Text>
          <Column gap={4}>
            {look.differences.map((d) => (
              <Text key={d.field} kind="strong">
                {differenceWords(d)}
              </Text>
            ))}
          </Column>
        </Sheet>
      )}
    </Page>
  );
}

/** Keeps what is typed for when the page is left, and says so; leaving the app itself is asked about. */
function useKept(name: string, form: EnterForm, first: EnterForm): { forget: () => void } {
  const send = useAppDispatch();
  const open = useRef(false);
  const over = useRef(false);
  useEffect(() => {
    open.current = !over.current && JSON.stringify(form) !== JSON.stringify(first);
    if (open.current) kept.set(name, form);
    else kept.delete(name);
    if (!open.current) return undefined;
    const stay = (event: BeforeUnloadEvent) => event.preventDefault();
    addEventListener('beforeunload', stay);
    return () => removeEventListener('beforeunload', stay);
    // What it began with stays.
    // oxlint-disable-next-line react-hooks/exhaustive-deps
  }, [form, name]);
  useEffect(
    () => () => {
      const [what, id] = name.startsWith('copy ') ? ['copy', name.slice(5)] : ['order', name];
      if (open.current)
        send(
          notify({
            kind: 'caution',
            text: i18n.t('enter.unsaved'),
            link: name === 'new' ? '/desk/enter' : `/desk/enter?${what}=${id}`,
            about: `enter ${name}`,
          }),
        );
    },
    [send, name],
  );
  return {
    forget: () => {
      over.current = true;
      open.current = false;
      kept.delete(name);
    },
  };
}

function Address({
  form,
  onChange,
  fault,
}: {
  form: EnterForm;
  onChange: (change: Partial<EnterForm>) => void;
  fault: FaultOf;
}) {
  const { t } = useTranslation();
  const field = (name: keyof EnterForm['shipTo'], flex: number, minWidth: number) => (
    <View style={{ flex, minWidth }}>
      <Field
        label={t(`enter.${name}`)}
        value={form.shipTo[name]}
        onChange={(text) => onChange({ shipTo: { ...form.shipTo, [name]: text } })}
        error={fault(`draft.shipTo.${name}`)}
      />
    </View>
  );
  return (
    <Column gap={12}>
      <Text kind="heading" level={2}>
        {t('enter.address')}
      </Text>
      <Row gap={16} style={{ alignItems: 'flex-start' }}>
        {field('name', 1, 160)}
        {field('street', 1, 160)}
      </Row>
      <Row gap={16} style={{ alignItems: 'flex-start' }}>
        {field('postcode', 1, 90)}
        {field('city', 2, 120)}
        {field('country', 1, 110)}
      </Row>
    </Column>
  );
}
