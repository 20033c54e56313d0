import { useTranslation } from 'react-i18next';
import { Pressable, ScrollView, useWindowDimensions, View } from 'react-native';
import type { RunDetail } from '@hand-relay/contract';
import { Page } from '../shell/index.ts';
import { i18n } from '../text/index.ts';
import { CartDrawing, endOf, Button, Row, ScanField, Shape, StepCard, Text, useSurface } from '../ui/index.ts';
import { AtTheBin } from './AtTheBin.tsx';
import type { useRun } from './useRun.ts';
import type { Verdict } from './verdict.ts';

type SetUp = NonNullable<ReturnType<typeof useRun>['setUp']>;

/** Height of a screen below which the places are a strip above the card. */
const LOW = 700;

const placeName = ({ ready, place, number }: SetUp['cart']['places'][number]) =>
  i18n.t(ready ? 'setUp.isReady' : 'setUp.isOpen', { place, order: number });

/** Before the first stop: which order is picked into which place of the cart. */
export function SetUpView({
  run,
  setUp,
  verdict,
  onBack,
  onGiveBack,
}: {
  run: RunDetail;
  setUp: SetUp;
  verdict: Verdict | null;
  onBack: () => void;
  onGiveBack: () => void;
}) {
  const { t } = useTranslation();
  const { height } = useWindowDimensions();
  const { cart, next } = setUp;
  const ready = cart.places.filter((p) => p.ready).length;
  const fits = cart.places.some((p) => !p.ready && p.place <= cart.size);
  if (!next) return null;
  const order = run.positions.find((p) => p.id === next.order);
  return (
    <Page title={`${run.run.callSign}  ${ready}/${cart.places.length}`} filled onBack={onBack}>
      <AtTheBin
        asks={`${next.order} ${verdict?.text}`}
        above={height < LOW ? <Places setUp={setUp} /> : null}
        card={
          <StepCard
            verb={t('setUp.verb')}
            code={t('floor.place', { number: next.place })}
            item={{ name: next.number, sku: order?.customer ?? '', picture: 'parcel' }}
            count={t('setUp.holds', {
              lines: t('unit.lines', { count: order?.lines ?? 0 }),
              units: t('unit.units', { count: order?.units ?? 0 }),
            })}
            facts={next.place > cart.size ? [t('setUp.noPlace', { cart: cart.cart, count: cart.size })] : []}
            notes={[]}
            verdict={verdict}
            drawing={
              height < LOW
                ? undefined
                : (high) => (
                    <CartDrawing
                      front={{ places: cart.size, across: run.cartFront.across }}
                      cells={cart.places.map((p) => ({
                        number: p.place,
                        label: endOf(p.number),
                        state: p.ready ? 'done' : 'open',
                      }))}
                      target={next.place}
                      label={t('floor.cartFront', { number: next.place })}
                      height={high}
                      onPress={(number) => {
                        const order = cart.places.find((p) => p.place === number)?.order;
                        if (order) setUp.choose(order);
                      }}
                      nameOf={(cell) => placeName(cart.places.find((p) => p.place === cell.number)!)}
                    />
                  )
            }
          />
        }
        keys={
          <>
            <ScanField label={t('setUp.ask', { place: `${cart.cart}-${next.place}` })} onCode={setUp.scan} />
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
              {next.place <= cart.size && (
                <Button kind="act" size="floor" wide title={t('setUp.here')} onPress={setUp.confirm} />
              )}
              {!fits && ready > 0 && (
                <Button
                  kind="act"
                  size="floor"
                  wide
                  title={t('setUp.go', { count: ready })}
                  onPress={setUp.leaveRest}
                />
              )}
            </View>
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
              {fits && <Button size="floor" wide title={t('setUp.all')} onPress={setUp.confirmAll} />}
              <Button size="floor" wide title={t('floor.giveBack')} onPress={onGiveBack} />
            </View>
          </>
        }
      />
    </Page>
  );
}

/** The places of the cart, each with its order: touched, it is the next one. */
function Places({ setUp: { cart, next, choose } }: { setUp: SetUp }) {
  const surface = useSurface();
  return (
    <ScrollView horizontal style={{ flexGrow: 0 }} contentContainerStyle={{ gap: 4 }}>
      {cart.places.map((p) => (
        <Pressable
          key={p.order}
          role="button"
          aria-label={placeName(p)}
          onPress={() => choose(p.order)}
          style={{
            minHeight: 44,
            justifyContent: 'center',
            paddingHorizontal: 10,
            borderWidth: p === next ? 2 : 1,
            borderColor: p === next ? surface.ink : surface.line,
            borderRadius: 4,
          }}
        >
          <Row gap={6}>
            <Shape kind={p.ready ? 'done' : 'quiet'} size={14} />
            <Text kind="small">{`${p.place} · ${p.number}`}</Text>
          </Row>
        </Pressable>
      ))}
    </ScrollView>
  );
}
