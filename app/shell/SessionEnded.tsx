import { useTranslation } from 'react-i18next';
import { Modal, ScrollView, View } from 'react-native';
import type { Me } from '@hand-relay/contract';
import { useOutbox } from '../offline/index.ts';
import { Column, Button, Signal, Text, useScans } from '../ui/index.ts';
import { Ground } from './Ground.tsx';
import { SignInAgain } from './SignInAgain.tsx';
import { useSignOut } from './useSignOut.ts';

/**
 * Covers the page when the session of whoever works here has ended. The page stays as it was under it, and comes back
 * when the same person signs in.
 */
export function SessionEnded({ me }: { me: Me }) {
  const { t } = useTranslation();
  const signOut = useSignOut();
  const { name, id } = me.person;
  const unsent = useOutbox().entries.filter((e) => !e.sent && e.person === id).length;
  // Nothing that is scanned here is for the page beneath.
  useScans(() => undefined);
  return (
    <Modal visible animationType="none" onRequestClose={() => undefined}>
      <Ground surface="floor">
        <View style={{ flex: 1 }} role="dialog" aria-label={t('signIn.ended')}>
          <ScrollView
            contentContainerStyle={{ flexGrow: 1, justifyContent: 'center', alignItems: 'center', padding: 20 }}
          >
            <Column gap={16} style={{ width: '100%', maxWidth: 460 }}>
              <Text kind="title" level={1}>
                {t('signIn.ended')}
              </Text>
              <Text>{t('signIn.endedWhy', { name })}</Text>
              {unsent > 0 && <Signal kind="caution" size="body" text={t('signIn.endedUnsent', { count: unsent })} />}
              <SignInAgain
                me={me}
                onDone={() => undefined}
                other={<Button title={t('signIn.other')} onPress={() => void signOut()} />}
              />
            </Column>
          </ScrollView>
        </View>
      </Ground>
    </Modal>
  );
}
