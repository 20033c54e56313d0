import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { useMe, words } from '../state/index.ts';
import { charcoal, Column, Button, Row, Sheet, Signal, SurfaceContext, Text } from '../ui/index.ts';
import { outbox, useOutbox } from './theOutbox.ts';

/** What this device has not sent yet, whether the server is in reach, and what it did not take. Nothing while all is well. */
export function OutboxLine() {
  const { t } = useTranslation();
  const me = useMe();
  const { entries, lost, reachable, fault, keeps } = useOutbox();
  const [open, setOpen] = useState(false);
  const mine = entries.filter((e) => !e.sent && e.person === me.person.id).length;
  const others = entries.filter((e) => !e.sent && e.person !== me.person.id).length;
  const own = lost.filter((l) => l.person === me.person.id);
  // One scan on its way is no news.
  if (reachable && keeps && mine < 2 && others === 0 && own.length === 0) return null;
  const says = [
    !reachable
      ? t(fault ? 'offline.fault' : keeps ? 'offline.none' : 'offline.noneLoose')
      : !keeps && t('offline.keepsNothing'),
    mine > 0 && t('offline.waits', { count: mine }),
    others > 0 && t('offline.others', { count: others }),
  ]
    .filter(Boolean)
    .join(' ');
  return (
    <SurfaceContext.Provider value="floor">
      <Row
        gap={12}
        style={{ backgroundColor: charcoal, paddingHorizontal: 12, paddingVertical: 4, flexWrap: 'nowrap' }}
      >
        <View style={{ flex: 1, minWidth: 0 }} aria-live="polite">
          {says !== '' && <Signal kind={reachable && keeps ? 'quiet' : 'caution'} size="body" text={says} />}
        </View>
        {own.length > 0 && (
          <Button size="small" title={t('offline.lost', { count: own.length })} onPress={() => setOpen(true)} />
        )}
      </Row>
      {open && own.length > 0 && (
        <Sheet
          title={t('offline.title')}
          onClose={() => setOpen(false)}
          keys={<Button size="floor" title={t('offline.close')} onPress={() => setOpen(false)} />}
        >
          <Text>{t('offline.about')}</Text>
          {own.map(({ id, about, trouble }) => (
            <Column key={id} gap={6}>
              <Text kind="heading">
                {about.item === ''
                  ? t('offline.left', { ...about })
                  : t(about.run === '' ? 'offline.count' : 'offline.pick', { ...about })}
              </Text>
              <Signal kind="refused" size="body" text={words(trouble)} />
              {about.item !== '' && about.run !== '' && <Text>{t('offline.putBack', { bin: about.bin })}</Text>}
              <Button size="floor" kind="act" title={t('offline.done')} onPress={() => outbox.settle(id)} />
            </Column>
          ))}
        </Sheet>
      )}
    </SurfaceContext.Provider>
  );
}
