import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { LookedUp, RunPick } from '@hand-relay/contract';
import { api, troubleOf, words } from '../state/index.ts';
import { number } from '../text/index.ts';
import {
  Column,
  Failed,
  Button,
  Loading,
  Picture,
  Row,
  ScanField,
  Sheet,
  Signal,
  SurfaceContext,
  Text,
} from '../ui/index.ts';
import { lookHere } from './lookHere.ts';

/** Says what a scanned code names; the run waits in the meantime, and nothing of it changes. */
export function LookUp({ picks = [], onClose }: { picks?: readonly RunPick[]; onClose: () => void }) {
  const { t } = useTranslation();
  const [code, setCode] = useState<string | null>(null);
  const {
    currentData: data,
    error,
    isFetching,
    refetch,
  } = api.useLookUpQuery({ code: code ?? '' }, { skip: code === null });
  const trouble = error ? troubleOf(error) : null;
  return (
    <SurfaceContext.Provider value="floor">
      <Sheet
        title={t('lookUp.title')}
        onClose={onClose}
        keys={<Button size="floor" title={t('notice.close')} onPress={onClose} />}
      >
        <ScanField label={t('lookUp.ask')} onCode={setCode} />
        {error &&
          (trouble?.code === 'network' && code !== null ? (
            <Here code={code} picks={picks} />
          ) : (
            <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />
          ))}
        {isFetching && !data && <Loading rows={2} />}
        {data && <Found found={data} />}
        {code === null && <Text colour="quiet">{t('lookUp.about')}</Text>}
      </Sheet>
    </SurfaceContext.Provider>
  );
}

/** Offline: what the device knows of the run in hand. */
function Here({ code, picks }: { code: string; picks: readonly RunPick[] }) {
  const { t } = useTranslation();
  const found = lookHere(picks, code);
  return (
    <Column gap={8}>
      <Signal kind="caution" size="body" text={t('lookUp.offline')} />
      {found.length === 0 && <Text>{t('lookUp.unknownHere', { code })}</Text>}
      {found.map((p) => (
        <Goods
          key={p.step.id}
          name={p.step.item.name}
          sku={p.step.item.sku}
          picture={p.picture}
          says={[
            t('lookUp.inRun', { units: number(p.step.units), bin: p.step.bin }),
            p.step.lot && t('floor.lot', { lot: p.step.lot }),
            p.order.number,
          ]
            .filter(Boolean)
            .join(' · ')}
        />
      ))}
    </Column>
  );
}

function Found({ found }: { found: LookedUp }) {
  const { t } = useTranslation();
  if (found.kind === 'nothing') return <Signal kind="caution" text={t('scan.nothing', { code: found.code })} />;
  if (found.kind === 'void') return <Signal kind="refused" text={t('scan.void', { name: found.name })} />;
  if (found.kind === 'item')
    return (
      <Column gap={8}>
        <Goods {...found.item} says={t('lookUp.free', { units: number(found.free) })} />
        <Text colour="quiet">
          {found.packs
            .map((p) => t('floor.packHolds', { level: t(`floor.level.${p.level}`), units: number(p.units) }))
            .join(' · ')}
        </Text>
        {found.bins.length === 0 && <Text>{t('lookUp.nowhere')}</Text>}
        {found.bins.map((b) => (
          <Line
            key={`${b.bin} ${b.lot}`}
            name={b.bin}
            says={[
              b.lot && t('floor.lot', { lot: b.lot }),
              b.bestBefore && t('floor.bestBefore', { date: b.bestBefore }),
              b.sent > 0 && t('lookUp.sent', { units: number(b.sent) }),
              b.blocked && t('lookUp.blocked'),
            ]}
            units={b.units}
          />
        ))}
      </Column>
    );
  if (found.kind === 'bin')
    return (
      <Column gap={8}>
        <Text kind="title">{found.bin}</Text>
        <Text colour="quiet">{[found.zone, found.blocked ? t('lookUp.blocked') : ''].filter(Boolean).join(' · ')}</Text>
        {found.goods.length === 0 && <Text>{t('lookUp.empty')}</Text>}
        {found.goods.map((g) => (
          <Goods
            key={`${g.sku} ${g.lot}`}
            {...g}
            says={[
              `${number(g.units)} × ${g.unit}`,
              g.lot && t('floor.lot', { lot: g.lot }),
              g.sent > 0 && t('lookUp.sent', { units: number(g.sent) }),
            ]
              .filter(Boolean)
              .join(' · ')}
          />
        ))}
      </Column>
    );
  if (found.kind === 'carton')
    return (
      <Column gap={8}>
        <Text kind="heading">{t('lookUp.carton', { order: found.order, customer: found.customer })}</Text>
        <Text kind="mono">{found.sscc}</Text>
        <Text colour="quiet">{[t(`bench.state.${found.state}`), found.lane].filter(Boolean).join(' · ')}</Text>
        {found.goods.map((g) => (
          <Goods key={`${g.sku} ${g.lot}`} {...g} says={`${number(g.units)} × ${g.unit}`} />
        ))}
      </Column>
    );
  return (
    <Column gap={8}>
      <Text kind="title">{found.number}</Text>
      <Text>{found.customer}</Text>
      {found.hold !== null && <Signal kind="caution" text={found.hold} />}
      {found.note !== '' && <Signal kind="caution" size="body" text={t('floor.orderNote', { note: found.note })} />}
      {found.where.length > 0 && <Text colour="quiet">{found.where.join(' · ')}</Text>}
      {found.lines.map((l) => (
        <Goods
          key={l.sku}
          {...l}
          says={t('lookUp.line', { picked: number(l.picked), asked: number(l.asked), packed: number(l.packed) })}
        />
      ))}
    </Column>
  );
}

function Goods({ name, sku, picture, says }: { name: string; sku: string; picture: string; says: string }) {
  return (
    <Row gap={12} style={{ flexWrap: 'nowrap' }}>
      <Picture name={picture} size={56} />
      <View style={{ flex: 1, minWidth: 0 }}>
        <Text kind="strong" lines={2}>
          {name}
        </Text>
        <Text kind="mono" colour="quiet">
          {sku}
        </Text>
        <Text>{says}</Text>
      </View>
    </Row>
  );
}

function Line({ name, says, units }: { name: string; says: (string | false | null)[]; units: number }) {
  return (
    <Row gap={12} style={{ flexWrap: 'nowrap', justifyContent: 'space-between' }}>
      <View style={{ flex: 1, minWidth: 0 }}>
        <Text kind="heading">{name}</Text>
        <Text kind="small" colour="quiet">
          {says.filter(Boolean).join(' · ')}
        </Text>
      </View>
      <Text kind="heading">{number(units)}</Text>
    </Row>
  );
}
