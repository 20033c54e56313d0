import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import type { PutAway } from '@hand-relay/contract';
import { judgePutAway, type PutAwayProgress } from '@hand-relay/core/handling/picking';
import { outbox, useOutbox } from '../offline/index.ts';
import { api, randomKey, thisYear, troubleOf, words } from '../state/index.ts';
import { i18n, number } from '../text/index.ts';
import { Empty, Failed, Button, Loading, play, Ribbon, Row, ScanField, StepCard } from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { AtTheBin } from './AtTheBin.tsx';
import { countRefused } from './countRefused.ts';
import type { Verdict } from './verdict.ts';

const nothing: PutAwayProgress = { item: null, bin: null };

/** Goods of a cart that go back into their bins, one after the other on the shortest walk. */
export function BackView({ run }: { run: string }) {
  const { t } = useTranslation();
  const router = useRouter();
  const { data, error, refetch } = api.usePutAwaysQuery();
  const { entries } = useOutbox();
  const [progress, setProgress] = useState(nothing);
  const [verdict, setVerdict] = useState<Verdict | null>(null);
  const back = () => router.navigate('/floor');
  const trip = data?.trips.find((x) => x.run === run);
  const here = entries.flatMap((e) => (e.after?.kind === 'back' ? [e.after.goods] : []));
  const isDone = (g: PutAway) => g.done || here.includes(g.id);
  const current = trip?.goods.find((g) => !isDone(g));
  if (error) return <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />;
  if (!data) return <Loading rows={3} height={120} />;
  if (!trip || !current)
    return (
      <Page
        title={t('back.title')}
        onBack={back}
        foot={<Button kind="act" size="floor" title={t('floor.backToRuns')} onPress={back} />}
      >
        <Empty title={t('back.doneTitle')} text={t('back.doneText')} />
      </Page>
    );
  const take = (input: Parameters<typeof judgePutAway>[2]) => {
    const judged = judgePutAway(current, progress, input, thisYear());
    if (judged.verdict === 'refused') {
      play('refused');
      const { code, got } = judged;
      const facts = { got, expected: code === 'wrong-bin' ? current.bin : current.item.name };
      countRefused({ run, number: trip.number, of: current.id }, { code, facts });
      return setVerdict({ kind: 'refused', text: i18n.t(`back.${code}`, facts) });
    }
    play('accepted');
    if (judged.verdict === 'accepted') {
      const matched = progress.item === null && judged.progress.item !== null;
      setVerdict(matched ? { kind: 'done', text: t('back.itemMatches', { bin: current.bin }) } : null);
      return setProgress(judged.progress);
    }
    const { item, bin } = judged.progress;
    outbox.add({
      key: randomKey(),
      ask: { name: 'putBackOne', id: run, body: { goods: current.id, item: item!, bin: bin! } },
      verdict: null,
      after: { kind: 'back', goods: current.id },
      about: { run: trip.number, bin: current.bin, item: current.item.name, units: current.units },
    });
    setProgress(nothing);
    setVerdict({ kind: 'done', text: t('back.isIn', { item: current.item.name, bin: current.bin }) });
  };
  const next = progress.bin === null ? 'bin' : 'item';
  return (
    <Page title={`${trip.callSign}  ${trip.goods.filter(isDone).length}/${trip.goods.length}`} filled onBack={back}>
      <AtTheBin
        asks={`${current.id} ${verdict?.text}`}
        above={
          <Ribbon
            stops={trip.goods.map((g) => ({ key: g.id, state: isDone(g) ? 'done' : 'open' }))}
            current={current.id}
            label={t('waves.stops')}
          />
        }
        card={
          <StepCard
            verb={t('back.verb')}
            code={current.bin}
            item={current.item}
            count={t(whence(current), {
              units: number(current.units),
              unit: current.item.unit,
              position: current.position,
              carton: current.carton,
              order: current.order,
            })}
            facts={[
              trip.cart,
              current.lot ? t('floor.lot', { lot: current.lot }) : '',
              current.serials.join(', '),
              t('back.order', { order: current.order }),
            ].filter(Boolean)}
            notes={[]}
            verdict={verdict}
          />
        }
        keys={
          <>
            <ScanField
              label={
                next === 'item'
                  ? t('floor.ask.item')
                  : t(progress.item === null ? 'floor.ask.binOrItem' : 'floor.ask.bin', { bin: current.bin })
              }
              onCode={(text) => take({ kind: 'scan', text })}
            />
            <Row gap={8} style={{ flexWrap: 'nowrap' }}>
              <Button
                kind="act"
                size="floor"
                wide
                title={next === 'bin' ? t('floor.iAmHere') : t('floor.isIn')}
                onPress={() => take({ kind: 'touch', what: next })}
              />
            </Row>
          </>
        }
      />
    </Page>
  );
}

/** How it is said from where goods are taken. */
const whence = ({ carton, position }: PutAway) =>
  carton ? 'back.countFromCarton' : position > 0 ? 'back.countFrom' : 'back.count';
