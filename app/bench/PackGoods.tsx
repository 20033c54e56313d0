import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { BenchOrder } from '@hand-relay/contract';
import type { PackInput, PackSteps } from '@hand-relay/core/handling/packing';
import { number } from '../text/index.ts';
import { Button, Card, Column, Field, Picture, Row, Shape, Signal, Text, useSurface } from '../ui/index.ts';

type Line = BenchOrder['lines'][number];
type Loose = BenchOrder['bench']['loose'][number];

/** The next item large, the others in rows, those that are packed as one line each. */
export function PackGoods({
  order,
  plan,
  onInput,
}: {
  order: BenchOrder;
  /** What goes into the carton in hand; null while it is not known. */
  plan: PackSteps | null;
  onInput: (input: PackInput) => void;
}) {
  const { t } = useTranslation();
  const { loose, carton } = order.bench;
  const step = carton && plan ? plan.steps.find((s) => s.inside < s.of) : undefined;
  const next = step && loose.filter((l) => l.item.id === step.item);
  const nextSku = next?.[0]?.item.sku;
  const order_ = plan?.steps.map((s) => s.item) ?? [];
  const rank = (sku: string) => {
    const at = order_.indexOf(loose.find((l) => l.item.sku === sku)?.item.id ?? '');
    return at < 0 ? order_.length : at;
  };
  const waiting = (l: Line) => loose.some((x) => x.item.sku === l.sku) || l.picked < l.released;
  const open = order.lines.filter((l) => waiting(l) && l.sku !== nextSku).sort((a, b) => rank(a.sku) - rank(b.sku));
  const done = order.lines.filter((l) => !waiting(l) && l.sku !== nextSku);
  const line = order.lines.find((l) => l.sku === nextSku);
  return (
    <Column gap={16}>
      {line && step && next && next.length > 0 && (
        <Next line={line} inside={step.inside} of={step.of} loose={next} onInput={onInput} />
      )}
      <Card gap={0} pad={0}>
        {open.map((l) => (
          <Waiting
            key={l.line}
            line={l}
            loose={carton ? loose.filter((x) => x.item.sku === l.sku) : []}
            onInput={onInput}
          />
        ))}
        {done.map((l) => (
          <Packed key={l.line} line={l} />
        ))}
        {open.length + done.length === 0 && (
          <Text colour="quiet" style={{ padding: 16 }}>
            {t('bench.lastItem')}
          </Text>
        )}
      </Card>
    </Column>
  );
}

/** What goes in next: how many of how many in the largest type. */
function Next({
  line,
  inside,
  of,
  loose,
  onInput,
}: {
  line: Line;
  inside: number;
  of: number;
  loose: Loose[];
  onInput: (input: PackInput) => void;
}) {
  const { t } = useTranslation();
  const surface = useSurface();
  return (
    <Card gap={12} style={{ borderColor: surface.ink, borderWidth: 2 }}>
      <Row gap={20} style={{ flexWrap: 'nowrap', alignItems: 'flex-start' }}>
        <Picture name={line.picture} size={120} />
        <View style={{ flex: 1, minWidth: 0, gap: 4 }}>
          <Text kind="label" colour="quiet">
            {t('bench.nextItem')}
          </Text>
          <Text kind="large" level={2} style={{ fontSize: 30, lineHeight: 34 }}>
            {line.name}
          </Text>
          <Text kind="mono" colour="quiet">
            {line.sku}
          </Text>
          <Text kind="code" style={{ fontSize: 64, lineHeight: 68 }}>
            {`${number(inside)} / ${number(of)}`}
          </Text>
          {line.note !== '' && <Signal kind="caution" text={line.note} />}
        </View>
      </Row>
      {loose.map((x) => (
        <PutIn
          // With the units: what was typed for more of them is no proposal for the rest.
          key={`${x.lot ?? ''} ${x.serial ?? ''} ${x.units} ${inside}`}
          loose={x}
          first={Math.min(x.units, of - inside)}
          unit={line.unit}
          onInput={onInput}
        />
      ))}
    </Card>
  );
}

/** A line that waits: what was released, picked and packed of it. */
function Waiting({ line, loose, onInput }: { line: Line; loose: Loose[]; onInput: (input: PackInput) => void }) {
  const { t } = useTranslation();
  const surface = useSurface();
  return (
    <View
      style={{ borderBottomWidth: 1, borderColor: surface.line, paddingHorizontal: 16, paddingVertical: 8, gap: 8 }}
    >
      {/* On a phone the figures stand below: a name is never broken inside a word for them. */}
      <Row gap={12} style={{ minHeight: 48 }}>
        <View style={{ flexDirection: 'row', gap: 12, flexGrow: 1, flexBasis: 220, minWidth: 0, alignItems: 'center' }}>
          <Picture name={line.picture} size={44} />
          <View style={{ flex: 1, minWidth: 0 }}>
            <Text kind="heading">{line.name}</Text>
            <Text kind="mono" colour="quiet">
              {line.sku}
            </Text>
            {line.note !== '' && <Signal kind="caution" text={line.note} />}
          </View>
        </View>
        <Row gap={12} style={{ flexWrap: 'nowrap', marginLeft: 'auto' }}>
          {(['released', 'picked', 'packed'] as const).map((f) => (
            <View key={f} style={{ minWidth: 56, alignItems: 'flex-end' }}>
              <Text kind="small" colour="quiet">
                {t(`bench.${f}`)}
              </Text>
              <Text kind="heading">{number(line[f])}</Text>
            </View>
          ))}
        </Row>
      </Row>
      {loose.map((x) => (
        <PutIn
          key={`${x.lot ?? ''} ${x.serial ?? ''} ${x.units}`}
          loose={x}
          first={x.units}
          unit={line.unit}
          onInput={onInput}
        />
      ))}
    </View>
  );
}

function Packed({ line }: { line: Line }) {
  const { t } = useTranslation();
  const surface = useSurface();
  return (
    <Row
      gap={10}
      style={{
        minHeight: 36,
        paddingHorizontal: 16,
        borderBottomWidth: 1,
        borderColor: surface.line,
        flexWrap: 'nowrap',
      }}
    >
      <Shape kind="done" />
      <Text colour="quiet" lines={1} style={{ flex: 1 }}>
        {line.name}
      </Text>
      <Text colour="done">{t('bench.packedOf', { packed: number(line.packed), units: number(line.picked) })}</Text>
    </Row>
  );
}

/** By touch: so many of it into the open carton. A serial number is scanned or touched one by one. */
function PutIn({
  loose,
  first,
  unit,
  onInput,
}: {
  loose: Loose;
  /** Units that the field begins with. */
  first: number;
  unit: string;
  onInput: (input: PackInput) => void;
}) {
  const { t } = useTranslation();
  const [count, setCount] = useState(String(first));
  const name = loose.lot ? t('floor.lot', { lot: loose.lot }) : (loose.serial ?? '');
  const put = () =>
    onInput(
      loose.serial
        ? { kind: 'scan', text: loose.serial }
        : { kind: 'put', item: loose.item.id, lot: loose.lot, units: Number(count) },
    );
  return (
    <Row gap={8} style={{ justifyContent: 'flex-end' }}>
      {name !== '' && (
        <Text kind="mono" colour="quiet">
          {name}
        </Text>
      )}
      {!loose.serial && (
        <View style={{ width: 90 }}>
          <Field
            label={t('floor.typeCount')}
            bare
            numeric
            value={count}
            onChange={(v) => setCount(v.replace(/\D/g, ''))}
            onSubmit={put}
          />
        </View>
      )}
      <Button
        title={t('bench.put', { units: `${loose.serial ? 1 : count || '0'} × ${unit}` })}
        disabled={!loose.serial && !(Number(count) > 0)}
        onPress={put}
      />
    </Row>
  );
}
