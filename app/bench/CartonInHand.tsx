import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { BenchOrder, PackPlan } from '@hand-relay/contract';
import type { PackInput, PackSteps } from '@hand-relay/core/handling/packing';
import { useMe } from '../state/index.ts';
import { mass, number, price } from '../text/index.ts';
import { BoxDrawing, Button, Card, Choice, Column, Row, Signal, Text, useSurface } from '../ui/index.ts';
import { CartonWeight } from './CartonWeight.tsx';
import { InCarton } from './InCarton.tsx';
import { allIn, nextCarton } from './usePackCommands.ts';

/** Width and height of the drawing, which the carton is fitted into. */
const DRAWING = { width: 320, height: 260 };

/** The carton in hand, or the one to take, drawn with what lies in it and what comes next. */
export function CartonInHand({
  order,
  plan,
  steps,
  onInput,
  onTake,
  onWeigh,
  waiting,
}: {
  order: BenchOrder;
  plan: PackPlan | undefined;
  steps: PackSteps | null;
  onInput: (input: PackInput) => void;
  /** Another open carton is taken in hand. */
  onTake: (carton: string) => void;
  onWeigh: () => void;
  waiting: number;
}) {
  const { t } = useTranslation();
  const surface = useSurface();
  const { carton } = order.bench;
  const full = order.cartons.find((c) => c.id === carton?.id);
  const next = plan?.cartons[0];
  if (!carton && waiting === 0) return null;
  const left = steps ? steps.steps.reduce((n, s) => n + s.of - s.inside, 0) : 0;
  const code = carton && carton.contents.length > 0 && plan ? nextCarton(order, plan) : null;
  const beside = order.bench.boxes.find((b) => b.code === code);
  const byHand = order.bench.loose.some((l) => l.serial !== null);
  return (
    <Card gap={10} style={carton ? { borderColor: surface.ink, borderWidth: 2 } : {}}>
      <Row gap={12} style={{ justifyContent: 'space-between' }}>
        <Text kind="heading" level={2}>
          {carton
            ? `${t('bench.carton', { number: full?.number ?? 1 })} · ${full?.type ?? ''}`
            : next
              ? t('bench.proposed', { name: next.name })
              : t('bench.planning')}
        </Text>
        {plan && plan.cartons.length > 1 && (
          <Text colour="quiet">{t('bench.ofCartons', { number: 1, all: number(plan.cartons.length) })}</Text>
        )}
      </Row>
      {carton && order.bench.others.length > 0 && (
        <Choice
          bare
          label={t('bench.openCartons')}
          value={carton.id}
          onChange={onTake}
          options={[carton, ...order.bench.others]
            .sort((a, b) => a.number - b.number)
            .map((c) => ({ value: c.id, title: t('bench.carton', { number: c.number }) }))}
        />
      )}
      {plan?.otherwise && <Signal kind="caution" text={t('bench.otherwise')} />}
      {plan && plan.unfit.length > 0 && (
        <Signal kind="refused" text={t('bench.unfit', { names: plan.unfit.map((u) => u.name).join(', ') })} />
      )}
      {next?.rule && !plan?.otherwise && (
        <Text colour="quiet">{t('bench.byRule', { units: number(next.rule.perCarton) })}</Text>
      )}
      {next && next.places.length === 0 && !plan?.otherwise && (
        <Text colour="quiet">{t('bench.notDrawn', { units: number(next.rule?.units ?? 0), name: next.name })}</Text>
      )}
      {next && steps && next.places.length > 0 && !plan.otherwise && (
        <Drawn order={order} carton={next} steps={steps} weightG={full?.weightG ?? next.weightG} />
      )}
      {carton ? (
        <>
          {full?.contents.length === 0 && <Text colour="quiet">{t('bench.emptyCarton')}</Text>}
          {full?.contents.map((c) => (
            <InCarton
              key={`${c.item}${c.lot}${c.serial}${c.units}`}
              carton={carton.id}
              content={c}
              others={order.bench.others}
            />
          ))}
          {left > 0 && !byHand && !plan?.otherwise && (
            <Button
              size="floor"
              title={t('bench.allIn', { count: left })}
              onPress={() => allIn(order, steps).forEach(onInput)}
            />
          )}
          {carton.contents.length > 0 && order.bench.weighing !== 'never' && (
            <CartonWeight key={carton.id} carton={carton} onInput={onInput} onWeigh={onWeigh} />
          )}
          {beside && (
            <Button
              title={t('bench.openBeside', { name: beside.name })}
              onPress={() => onInput({ kind: 'scan', text: beside.code })}
            />
          )}
          <Button
            kind={carton.contents.length === 0 ? 'plain' : 'act'}
            size="floor"
            title={t(carton.contents.length === 0 ? 'bench.discard' : 'bench.close')}
            onPress={() => onInput({ kind: 'scan', text: 'DO-CLOSE' })}
          />
        </>
      ) : (
        <Choices order={order} plan={plan} onInput={onInput} />
      )}
    </Card>
  );
}

function Drawn({
  order,
  carton,
  steps,
  weightG,
}: {
  order: BenchOrder;
  carton: PackPlan['cartons'][number];
  steps: PackSteps;
  weightG: number;
}) {
  const { t } = useTranslation();
  const [quarter, setQuarter] = useState(0);
  // Somebody may look ahead, unit by unit; with the next unit that is put in it is over.
  const [looked, setLooked] = useState<{ at: number; inside: number } | null>(null);
  const inside = steps.filled.filter(Boolean).length;
  const look = looked?.inside === inside ? looked.at : null;
  const setLook = (to: number) => setLooked({ at: to, inside });
  // Before it is opened it is shown as it will be.
  const whole = look === null && !order.bench.carton;
  const at = whole ? null : (look ?? steps.next);
  const names = new Map([
    ...order.bench.loose.map((l) => [l.item.id, l.item.name] as const),
    ...(order.bench.carton?.contents ?? []).map((c) => [c.item, c.name] as const),
  ]);
  const nameAt = (place: number) => names.get(carton.places[place]!.item) ?? '';
  const last = carton.places.length - 1;
  // What is in while it is packed; before that, what it will be.
  const volume = carton.inner.reduce((n, side) => n * side, 1);
  const filled = carton.places.reduce((n, p, i) => (steps.filled[i] ? n + p.size[0] * p.size[1] * p.size[2] : n), 0);
  const share = order.bench.carton ? filled / volume : carton.fill;
  return (
    <>
      <View style={{ alignItems: 'center' }}>
        <BoxDrawing
          inner={carton.inner}
          boxes={carton.places}
          quarter={quarter}
          label={t('bench.drawn', { name: carton.name, inside: number(inside), all: number(carton.places.length) })}
          stateOf={(i) => (i === at ? 'next' : whole || (look === null ? steps.filled[i] : i < look) ? 'in' : 'later')}
          {...DRAWING}
        />
      </View>
      <Row gap={8} style={{ justifyContent: 'space-between', flexWrap: 'nowrap' }}>
        <Button
          icon="chevron-left"
          label={t('bench.before')}
          title=""
          disabled={(at ?? last + 1) <= 0}
          onPress={() => setLook(Math.max(0, (at ?? last + 1) - 1))}
        />
        <Text kind="small" colour="quiet" align="center" lines={2} style={{ flex: 1 }}>
          {at === null ? '' : t('bench.lookAt', { number: number(at + 1), all: number(last + 1), name: nameAt(at) })}
        </Text>
        <Button
          icon="chevron-right"
          label={t('bench.after')}
          title=""
          disabled={at !== null && at >= last}
          onPress={() => setLook(at === null ? 0 : Math.min(last, at + 1))}
        />
        <Button icon="rotate-right" label={t('bench.turn')} title="" onPress={() => setQuarter((q) => (q + 1) % 4)} />
      </Row>
      <Row gap={16} style={{ justifyContent: 'space-between' }}>
        <Text kind="figure">{t('bench.full', { percent: `${number(Math.round(100 * share))} %` })}</Text>
        <Text kind="figure">{mass(weightG)}</Text>
      </Row>
      {carton.volumetricG > carton.weightG && (
        <Text kind="small" colour="quiet">
          {t('bench.asVolume', { mass: mass(carton.volumetricG) })}
        </Text>
      )}
    </>
  );
}

/** The carton that is proposed, and what any other would come to. */
function Choices({
  order,
  plan,
  onInput,
}: {
  order: BenchOrder;
  plan: PackPlan | undefined;
  onInput: (input: PackInput) => void;
}) {
  const { t } = useTranslation();
  const me = useMe();
  const proposed = plan?.cartons[0]?.code;
  const open = (code: string) => onInput({ kind: 'scan', text: code });
  const others = order.bench.boxes.filter((b) => b.code !== proposed);
  const first = order.bench.boxes.find((b) => b.code === proposed);
  const words_ = (code: string) => {
    const choice = plan?.choices.find((c) => c.code === code);
    if (!plan || !choice) return null;
    const dearer = choice.costMinor - plan.costMinor;
    return [
      t('bench.cartons', { count: choice.cartons }),
      dearer > 0 ? t('bench.dearer', { money: price(dearer, me.site.currency) }) : t('bench.sameCost'),
      mass(Math.max(choice.weightG, choice.volumetricG)),
    ].join(' · ');
  };
  return (
    <Column gap={8}>
      {first && (
        <Button
          size="floor"
          kind="act"
          title={t('bench.open', { name: first.name })}
          onPress={() => open(first.code)}
        />
      )}
      {first && (
        <Text kind="label" colour="quiet" style={{ marginTop: 8 }}>
          {t('bench.choose')}
        </Text>
      )}
      {others.map((b) => (
        <Row key={b.code} gap={12} style={{ flexWrap: 'nowrap' }}>
          <View style={{ minWidth: 110 }}>
            <Button title={b.name} label={t('bench.open', { name: b.name })} onPress={() => open(b.code)} />
          </View>
          <Text kind="small" colour="quiet" style={{ flex: 1 }}>
            {words_(b.code) ?? ''}
          </Text>
        </Row>
      ))}
    </Column>
  );
}
