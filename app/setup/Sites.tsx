import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { api, notify, troubleOf, useAppDispatch, useMay, useMe, words } from '../state/index.ts';
import {
  Button,
  Card,
  Checkbox,
  Choice,
  Column,
  Failed,
  Field,
  Loading,
  Row,
  Sheet,
  Signal,
  Text,
} from '../ui/index.ts';
import { useSwitchSite } from '../shell/index.ts';
import { enteredOf, SiteFields, type EnteredSite } from './SiteFields.tsx';

/** Sites of the house, and a new one. */
export function Sites({ site }: { site: Partial<EnteredSite> }) {
  const { t } = useTranslation();
  const me = useMe();
  const toSite = useSwitchSite();
  const [making, setMaking] = useState(false);
  const { data, error, refetch } = api.useSitesQuery();
  const mine = new Set(me.sites.map((s) => s.id));
  return (
    <Column gap={12}>
      <Row gap={12} style={{ justifyContent: 'space-between' }}>
        <Text kind="heading" level={2}>
          {t('setup.sites.title')}
        </Text>
        <Button icon="plus" title={t('setup.sites.make')} onPress={() => setMaking(true)} />
      </Row>
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading />}
      {data?.sites.map(({ id, code, name, city, people, orders }) => (
        <Card key={id} gap={8} pad={12}>
          <Row gap={12} style={{ justifyContent: 'space-between' }}>
            <Column gap={2} style={{ flexShrink: 1 }}>
              <Text kind="strong">{`${code} ${name}`}</Text>
              <Text kind="small" colour="quiet">
                {[city, t('setup.sites.people', { count: people }), t('setup.sites.orders', { count: orders })]
                  .filter(Boolean)
                  .join(' · ')}
              </Text>
            </Column>
            {id === me.site.id ? (
              <Signal kind="done" text={t('setup.sites.here')} />
            ) : (
              mine.has(id) && (
                <Button size="small" title={t('setup.sites.goTo', { name })} onPress={() => void toSite(id)} />
              )
            )}
          </Row>
        </Card>
      ))}
      {making && <NewSite like={site} onClose={() => setMaking(false)} />}
    </Column>
  );
}

function NewSite({ like: from, onClose }: { like: Partial<EnteredSite>; onClose: () => void }) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const mayPeople = useMay('house.people');
  const { timeZone, currency, gs1Prefix } = enteredOf(from);
  const [code, setCode] = useState('');
  const [entered, setEntered] = useState(() => enteredOf({ timeZone, currency, gs1Prefix }));
  const [like, setLike] = useState<'this' | 'new'>('this');
  const [people, setPeople] = useState(false);
  const [make, { error, isLoading }] = api.useMakeSiteMutation();
  const trouble = error ? troubleOf(error) : null;
  const go = async () => {
    const site = { ...entered, currency: entered.currency.toUpperCase() };
    const { data } = await make({ code, site, like, people: people && like === 'this' });
    if (!data) return;
    send(notify({ kind: 'done', text: t('setup.sites.made', { name: entered.name }) }));
    onClose();
  };
  return (
    <Sheet
      title={t('setup.sites.makeTitle')}
      onClose={onClose}
      keys={
        <>
          <Button title={t('release.cancel')} onPress={onClose} />
          <Button kind="act" title={t('setup.first.go')} busy={isLoading} onPress={() => void go()} />
        </>
      }
    >
      <Column gap={12}>
        <Field
          focus
          label={t('setup.sites.code')}
          placeholder={t('setup.sites.codeHint')}
          value={code}
          onChange={setCode}
          error={trouble?.fields.find((f) => f.path === 'code')?.message}
        />
        <SiteFields entered={entered} onChange={setEntered} onSubmit={() => void go()} fields={trouble?.fields ?? []} />
        <Choice
          label={t('setup.sites.like')}
          value={like}
          onChange={setLike}
          options={(['this', 'new'] as const).map((value) => ({ value, title: t(`setup.sites.likes.${value}`) }))}
        />
        {like === 'this' && mayPeople && (
          <Checkbox shown label={t('setup.sites.everybody')} checked={people} onPress={() => setPeople(!people)} />
        )}
        <Text colour="quiet">{t('setup.sites.shared')}</Text>
        {trouble && trouble.fields.length === 0 && <Failed text={words(trouble)} />}
      </Column>
    </Sheet>
  );
}
