import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { languages } from '@hand-relay/contract';
import { api, forSite, useMe } from '../state/index.ts';
import { Choice, Button, Sheet, Signal, Text } from '../ui/index.ts';
import { browserLanguage, spoken } from '../text/index.ts';
import { useOutbox } from '../offline/index.ts';
import { NoticeList } from './Notices.tsx';
import { useSignOut } from './useSignOut.ts';
import { useSwitchSite } from './useSwitchSite.ts';
import { useWorkFor } from './useWorkFor.ts';

/** Who works here: the site, the language, the scanner of this device, and the way out. */
export function Person({ icon = false }: { icon?: boolean }) {
  const { t } = useTranslation();
  const me = useMe();
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [changeLanguage] = api.useChangeLanguageMutation();
  const work = useWorkFor();
  const unsent = useOutbox().entries.filter((e) => !e.sent && e.person === me.person.id).length;
  const others = forSite() === null ? me.sites.filter((s) => s.releases && s.id !== me.site.id) : [];
  const toSite = useSwitchSite();
  const change = async (site: string) => {
    if (await toSite(site)) setOpen(false);
  };
  const signOut = useSignOut();
  return (
    <>
      <Button
        title={me.person.name}
        label={t('nav.me', { name: me.person.name })}
        icon="account-circle-outline"
        iconOnly={icon}
        onPress={() => setOpen(true)}
        size={icon ? 'desk' : 'small'}
      />
      {open && (
        <Sheet
          title={t('nav.me', { name: me.person.name })}
          onClose={() => setOpen(false)}
          keys={
            <>
              <Button title={t('notice.close')} onPress={() => setOpen(false)} />
              <Button
                title={t('scanner.title')}
                onPress={() => {
                  setOpen(false);
                  router.navigate('/setup/scanner');
                }}
              />
              <Button title={t('nav.signOut')} onPress={() => void signOut()} />
            </>
          }
        >
          {me.sites.length > 1 ? (
            <Choice
              label={t('nav.site')}
              value={me.site.id}
              options={me.sites.map((s) => ({ value: s.id, title: s.name }))}
              onChange={(site) => void change(site)}
            />
          ) : (
            <Text>{me.site.name}</Text>
          )}
          {others.length > 0 && (
            <Choice
              label={t('nav.workFor')}
              value={me.site.id}
              options={others.map((s) => ({ value: s.id, title: s.name }))}
              onChange={(site) => {
                setOpen(false);
                void work(site);
              }}
            />
          )}
          <Choice
            label={t('nav.language')}
            value={me.person.language ?? browserLanguage()}
            options={languages.map((value) => ({ value, title: spoken[value].name }))}
            onChange={(language) => void changeLanguage({ language })}
          />
          <Text colour="quiet">{me.person.roles.join(', ')}</Text>
          {unsent > 0 && <Signal kind="caution" size="body" text={t('nav.unsent', { count: unsent })} />}
        </Sheet>
      )}
    </>
  );
}

/** Opens what was told before. */
export function AllNotices() {
  const { t } = useTranslation();
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button title={t('notice.all')} icon="bell-outline" iconOnly size="desk" onPress={() => setOpen(true)} />
      {open && <NoticeList onClose={() => setOpen(false)} />}
    </>
  );
}
