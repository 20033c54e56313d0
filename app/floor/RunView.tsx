import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { ScrollView, useWindowDimensions, View } from 'react-native';
import { readCode } from '@hand-relay/core/reading/codes';
import type { PickInput } from '@hand-relay/core/handling/picking';
import { afterTold } from '../offline/index.ts';
import { api, remembered, serverNow, notify, troubleOf, useMe, useAppDispatch, words } from '../state/index.ts';
import { CartDrawing, Choice, Failed, Button, Loading, Row, ScanField, StepCard, useSwipe, WIDE } from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { AtTheBin } from './AtTheBin.tsx';
import { cardWords, cellsOf, touchRule } from './card.ts';
import { Leave, Left } from './Leave.tsx';
import { LookUp } from './LookUp.tsx';
import { LeftBand } from './LeftBand.tsx';
import { OthersRun } from './OthersRun.tsx';
import { PickList } from './PickList.tsx';
import { ProblemSheet } from './ProblemSheet.tsx';
import { RunSheet } from './RunSheet.tsx';
import { RunRibbon } from './RunRibbon.tsx';
import { RunMap } from './RunMap.tsx';
import { SetUpView } from './SetUpView.tsx';
import { StopCard } from './StopCard.tsx';
import { TypeCount } from './TypeCount.tsx';
import { WhySheet } from './WhySheet.tsx';
import { useAwake } from './useAwake.ts';
import { useRun } from './useRun.ts';

/** From left to right, as a swipe goes through them. */
const LOOKS = ['card', 'list', 'plan'] as const;
type Look = (typeof LOOKS)[number];
type TouchInput = Extract<PickInput, { kind: 'touch' | 'count' }>;

/** A run in the aisle: one instruction at a time; the list and the plan are a touch away. */
export function RunView({ id }: { id: string }) {
  const { t } = useTranslation();
  const router = useRouter();
  const me = useMe();
  const send = useAppDispatch();
  const onRun = useRun(id);
  const { run, error, refetch, picks, held, current, verdict, leftOver, input, undo, leave } = onRun;
  useAwake();
  const { width } = useWindowDimensions();
  const [giveBack, giving] = api.useReturnRunMutation();
  const [look, setLook] = useState<Look>('card');
  const [short, setShort] = useState(false);
  /** Orders on hold of which the picker has read. */
  const [known, setKnown] = useState<string[]>([]);
  const [typing, setTyping] = useState(false);
  /** What was touched and waits for why. */
  const [touched, setTouched] = useState<TouchInput | null>(null);
  const [more, setMore] = useState<'run' | 'look-up' | null>(null);
  const swipe = useSwipe((way) => {
    const at = LOOKS.indexOf(look) + (way === 'left' ? 1 : -1);
    setLook(LOOKS[Math.min(LOOKS.length - 1, Math.max(0, at))]!);
  });
  const may = me.person.rights.includes('runs.pick');
  const back = () => router.navigate(may ? '/floor' : '/waves');
  if (error)
    return (
      <Page title="" onBack={back}>
        <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />
      </Page>
    );
  if (!run) return <Loading rows={3} height={120} />;
  const mine = run.run.state === 'picking' && run.run.pickerId === me.person.id;
  const done = picks.filter((p) => p.state !== 'open').length;
  const title = `${run.run.callSign}  ${done}/${picks.length}`;
  const begun = done > 0;
  const giveItBack = async () => {
    const answer = await afterTold(id, () => giveBack(id));
    if (answer.error) send(notify({ kind: 'refused', text: words(troubleOf(answer.error)) }));
    else back();
  };
  /** On a phone the card needs what keys for its other looks would take: a swipe, the ribbon and the sheet lead there. */
  const phone = width < WIDE;
  const looks = (
    <Choice
      bare
      label={t('floor.look')}
      value={look}
      onChange={(value) => {
        setLook(value);
        setMore(null);
      }}
      options={[
        { value: 'card', title: t('floor.card1') },
        { value: 'list', title: t('floor.list') },
        { value: 'plan', title: t('floor.plan') },
      ]}
    />
  );
  const pickMe = (pick: string) => {
    onRun.turnTo(pick);
    setLook('card');
  };
  if ((run.run.state === 'left' || run.run.state === 'done') && run.run.pickerId === me.person.id)
    return <Left run={run} picks={picks} />;
  if (!mine)
    return <OthersRun run={run} picks={picks} title={title} verdict={verdict} onBack={back} onRefuse={onRun.refuse} />;
  const stopped = held.find((p) => !known.includes(p.order.id));
  if (stopped)
    return (
      <Page title={title} filled onBack={back}>
        <StopCard
          pick={stopped}
          carried={picks.some((p) => p.order.id === stopped.order.id && p.picked > 0)}
          onScan={(got) =>
            onRun.refuse(stopped, {
              code: 'order-held',
              facts: { order: stopped.order.number, why: stopped.order.hold ?? '', got },
            })
          }
          onUnderstood={() => setKnown([...known, stopped.order.id])}
          onOut={() => onRun.takeOut(stopped.order)}
        />
      </Page>
    );
  const toSetUp = onRun.setUp?.cart.places.some((p) => !p.ready) ?? false;
  if (onRun.setUp && toSetUp && !begun)
    return (
      <SetUpView run={run} setUp={onRun.setUp} verdict={verdict} onBack={back} onGiveBack={() => void giveItBack()} />
    );
  const askLeft = leftOver && <LeftBand key={leftOver.pick} left={leftOver} onSay={onRun.sayLeft} />;
  if (!current)
    return (
      <Leave run={run} picks={picks} verdict={verdict} onUndo={undo} onLane={leave}>
        {askLeft}
      </Leave>
    );
  const card = cardWords(current, picks[picks.findIndex((p) => p.step.id === current.step.id) + 1]);
  const scanned = (text: string) => {
    const code = readCode(text, new Date(serverNow()).getFullYear());
    // A number where the card asks none is what is left in the bin before.
    if (code.kind === 'count' && leftOver && card.await !== 'item') onRun.sayLeft(code.count ?? leftOver.expected);
    else input({ kind: 'scan', text });
  };
  /** In place of a scan: at once, or after why it is not scanned. */
  const inPlaceOfScan = (done: TouchInput) => (touchRule(current) === 'reason' ? setTouched(done) : input(done));
  const touch = () => {
    const { found } = current.progress;
    if (card.await === 'item') inPlaceOfScan({ kind: 'count', units: found ?? current.step.units });
    else if (card.await !== 'serial') inPlaceOfScan({ kind: 'touch', what: card.await });
  };
  return (
    <Page
      title={title}
      filled
      onBack={back}
      aside={
        <Row gap={4}>
          {(!phone || look !== 'card') && looks}
          <Button title={t('runMore.key')} icon="dots-horizontal" iconOnly onPress={() => setMore('run')} />
        </Row>
      }
    >
      {look === 'plan' && (
        <View style={{ flex: 1, minHeight: 0, padding: 12 }}>
          <RunMap run={run} picks={picks} />
        </View>
      )}
      {look === 'list' && (
        <ScrollView {...swipe} style={{ flex: 1 }} contentContainerStyle={{ padding: 12, gap: 16 }}>
          <PickList picks={picks} onChoose={pickMe} current={current.step.id} />
        </ScrollView>
      )}
      {look === 'card' && (
        <AtTheBin
          {...swipe}
          asks={`${card.verb} ${card.code} ${verdict?.text}`}
          above={<RunRibbon picks={picks} current={current.step.bin} onOpen={() => setLook('list')} />}
          card={
            <StepCard
              verb={card.verb}
              code={card.code}
              unit={card.unit}
              item={{
                name: current.step.item.name,
                sku: current.step.item.sku,
                picture: remembered('card-picture') === 'off' ? '' : current.picture,
              }}
              count={card.count}
              facts={card.facts}
              foot={card.foot}
              drawing={
                card.await === 'position' || card.await === 'carton'
                  ? (height) => (
                      <CartDrawing
                        front={run.cartFront}
                        cells={cellsOf(picks)}
                        target={current.step.position.number}
                        label={t('floor.cartFront', { number: current.step.position.number })}
                        height={height}
                      />
                    )
                  : undefined
              }
              alike={card.alike}
              notes={card.notes}
              cold={current.cold ? t('floor.cold') : undefined}
              verdict={verdict}
            />
          }
          keys={
            <>
              {askLeft}
              {typing && card.await === 'item' ? (
                <TypeCount
                  key={current.step.id}
                  pick={current}
                  onScan={(text) => {
                    scanned(text);
                    setTyping(false);
                  }}
                  onCount={(units) => {
                    inPlaceOfScan({ kind: 'count', units });
                    setTyping(false);
                  }}
                />
              ) : (
                <ScanField label={card.ask} onCode={scanned} />
              )}
              <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
                {card.touch !== null && <Button kind="act" size="floor" wide title={card.touch} onPress={touch} />}
                {card.await === 'item' && card.touch !== null && (
                  <Button
                    size="floor"
                    icon="numeric"
                    iconOnly
                    title={t('floor.typeCount')}
                    pressed={typing}
                    onPress={() => setTyping(!typing)}
                  />
                )}
              </View>
              {card.further !== null && (
                <View style={{ flexDirection: 'row' }}>
                  <Button
                    size="floor"
                    wide
                    title={card.further}
                    onPress={() => input({ kind: 'touch', what: 'further' })}
                  />
                </View>
              )}
              <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
                <Button size="floor" wide title={t('floor.notFound')} onPress={() => setShort(true)} />
                {begun ? (
                  <Button size="floor" wide icon="undo" title={t('floor.undo')} onPress={undo} />
                ) : (
                  <Button
                    size="floor"
                    wide
                    title={t('floor.giveBack')}
                    busy={giving.isLoading}
                    onPress={() => void giveItBack()}
                  />
                )}
              </View>
            </>
          }
        />
      )}
      {touched && (
        <WhySheet
          onClose={() => setTouched(null)}
          onWhy={(why) => {
            setTouched(null);
            input({ ...touched, why });
          }}
        />
      )}
      {more === 'run' && (
        <RunSheet
          run={run}
          current={current}
          begun={begun}
          looks={phone ? looks : null}
          onLookUp={() => setMore('look-up')}
          onClose={() => setMore(null)}
        />
      )}
      {more === 'look-up' && <LookUp picks={picks} onClose={() => setMore(null)} />}
      {short && (
        <ProblemSheet
          pick={current}
          alone={picks.filter((p) => p.state === 'open').length === 1}
          onClose={() => setShort(false)}
          onReport={(report, photo) => {
            setShort(false);
            if (photo) onRun.keepPhoto(current.step.id, photo);
            input(report);
          }}
          onLater={() => {
            setShort(false);
            onRun.later(current.step.id);
          }}
          onOut={(problem, photo) => {
            setShort(false);
            if (photo) onRun.keepPhoto(current.step.id, photo);
            onRun.takeOut(current.order, { pick: current.step.id, ...problem });
          }}
        />
      )}
    </Page>
  );
}
