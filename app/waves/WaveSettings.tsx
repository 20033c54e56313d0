import { useTranslation } from 'react-i18next';
import type { WaveSummary } from '@hand-relay/contract';
import { pickings } from '@hand-relay/core/walking/choices';
import { api, troubleOf, words } from '../state/index.ts';
import { Button, Choice, Failed, Labelled, Picker, Sheet, Text } from '../ui/index.ts';

const NOBODY = '';

/** How a wave is picked, with which carts and by whom; each is set at once. What shapes runs is said before they are made. */
export function WaveSettings({ wave, onClose }: { wave: WaveSummary; onClose: () => void }) {
  const { t } = useTranslation();
  const { data: crew } = api.useCrewQuery();
  const [change, { error }] = api.useChangeWaveMutation();
  const set = (part: Omit<Parameters<typeof change>[0], 'id'>) => void change({ id: wave.id, ...part });
  const gathers = wave.state === 'gathering';
  const people = ['', ...Array.from({ length: 20 }, (_, i) => String(i + 1))];
  return (
    <Sheet
      title={t('waves.howOf', { number: wave.number })}
      onClose={onClose}
      keys={<Button kind="act" title={t('waves.howDone')} onPress={onClose} />}
    >
      {gathers && (
        <Choice
          label={t('waves.picking')}
          value={wave.picking}
          onChange={(picking) => set({ picking })}
          options={pickings.map((value) => ({ value, title: t(`waves.way.${value}`) }))}
        />
      )}
      {gathers && (
        <Text kind="small" colour="quiet">
          {t(`waves.wayAbout.${wave.picking}`)}
        </Text>
      )}
      {gathers && (
        <Labelled label={t('waves.carts')}>
          <Picker
            label={t('waves.carts')}
            value={crew?.carts.find((c) => c.name === wave.cart)?.id ?? ''}
            onChange={(cart) => set({ cart: cart || null })}
            options={[
              { value: '', title: t('waves.largest') },
              ...(crew?.carts ?? []).map((c) => ({ value: c.id, title: c.name })),
            ]}
          />
        </Labelled>
      )}
      <Labelled label={t('waves.team')}>
        <Picker
          label={t('waves.team')}
          value={wave.team}
          onChange={(team) => set({ team })}
          options={[NOBODY, ...new Set([...(crew?.teams ?? []), wave.team].filter(Boolean))].map((value) => ({
            value,
            title: value === NOBODY ? t('waves.anyTeam') : value,
          }))}
        />
      </Labelled>
      <Labelled label={t('waves.people')}>
        <Picker
          label={t('waves.people')}
          value={String(wave.people ?? '')}
          onChange={(n) => set({ people: n === '' ? null : Number(n) })}
          options={people.map((value) => ({ value, title: value === '' ? t('waves.whoIsHere') : value }))}
        />
      </Labelled>
      {error && <Failed text={words(troubleOf(error))} />}
    </Sheet>
  );
}
