import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { RunDetail, RunPick } from '@hand-relay/contract';
import { shortReasons, type ShortReason } from '@hand-relay/core/handling/picking';
import { api, notify, troubleOf, useAppDispatch, useMay, words } from '../state/index.ts';
import { number } from '../text/index.ts';
import {
  Button,
  Checkbox,
  Choice,
  Column,
  Failed,
  Field,
  Labelled,
  Loading,
  Picker,
  Row,
  Rule,
  Sheet,
  Signal,
  Text,
} from '../ui/index.ts';
import { exceptionOf, faultsOf, type Exception, type ExceptionFault } from './exception.ts';

/** Confirms a run that was picked by paper: all as planned, except what is ticked. */
export function ConfirmRunSheet({ id, onClose }: { id: string; onClose: () => void }) {
  const { data: run, error, refetch } = api.useRunQuery(id);
  const { t } = useTranslation();
  if (run) return <Confirming run={run} onClose={onClose} />;
  return (
    <Sheet
      title={t('confirmRun.key')}
      onClose={onClose}
      keys={<Button title={t('release.cancel')} onPress={onClose} />}
    >
      {error ? <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} /> : <Loading rows={4} />}
    </Sheet>
  );
}

function Confirming({ run, onClose }: { run: RunDetail; onClose: () => void }) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const mayArrange = useMay('runs.arrange');
  const { data: crew } = api.useCrewQuery(undefined, { skip: !mayArrange });
  const [confirm, { isLoading, error }] = api.useConfirmRunMutation();
  const open = run.picks.filter((p) => p.state === 'open');
  const [cart, setCart] = useState('');
  const [picker, setPicker] = useState('');
  const [lane, setLane] = useState(run.proposedLane ?? run.lanes[0]?.code ?? '');
  const [except, setExcept] = useState<Record<string, Exception>>(() =>
    // Of goods with serial numbers somebody must say which.
    Object.fromEntries(open.filter((p) => p.step.item.tracksSerial).map((p) => [p.step.id, exceptionOf(p)])),
  );
  const [asked, setAsked] = useState(false);
  const needsCart = run.run.state === 'waiting' && !run.run.cart;
  const faults = new Map(open.map((p) => [p.step.id, faultsOf(p, except[p.step.id])]));
  const wrong = [...faults.values()].some((f) => Object.keys(f).length > 0) || (needsCart && cart.trim() === '');
  const shorts = open.reduce((n, p) => {
    const e = except[p.step.id];
    return n + (e ? Math.max(0, p.step.units - Number(e.units)) : 0);
  }, 0);
  const go = async () => {
    setAsked(true);
    if (wrong || lane === '') return;
    const done = await confirm({
      id: run.run.id,
      lane,
      cart: needsCart ? cart.trim() : null,
      picker: picker || null,
      except: open.flatMap(({ step }) => {
        const e = except[step.id];
        if (!e) return [];
        const units = Number(e.units);
        return [
          {
            pick: step.id,
            units,
            reason: units < step.units ? e.reason : null,
            note: e.note.trim(),
            serials: step.item.tracksSerial ? e.serials.slice(0, units) : [],
          },
        ];
      }),
    });
    if (!done.data) return;
    send(notify({ kind: 'done', text: t('confirmRun.done', { run: run.run.number, lane }), about: run.run.id }));
    onClose();
  };
  return (
    <Sheet
      title={t('confirmRun.title', { run: run.run.number, sign: run.run.callSign })}
      onClose={onClose}
      keys={
        <>
          <Button title={t('release.cancel')} onPress={onClose} />
          <Button
            kind="act"
            title={t('confirmRun.do', { count: open.length })}
            busy={isLoading}
            onPress={() => void go()}
          />
        </>
      }
    >
      <Row gap={16} style={{ alignItems: 'flex-start' }}>
        {needsCart && (
          <View style={{ width: 170 }}>
            <Field
              focus
              label={t('confirmRun.cart')}
              value={cart}
              onChange={setCart}
              error={asked && cart.trim() === '' ? t('enter.needed') : undefined}
            />
          </View>
        )}
        <Labelled label={t('confirmRun.lane')}>
          <Picker
            label={t('confirmRun.lane')}
            value={lane}
            onChange={setLane}
            options={run.lanes.map((l) => ({ value: l.code, title: l.name }))}
          />
        </Labelled>
        {crew && (
          <Labelled label={t('confirmRun.picker')}>
            <Picker
              label={t('confirmRun.picker')}
              value={picker}
              onChange={setPicker}
              options={[
                { value: '', title: run.run.picker ?? run.run.assigned ?? t('confirmRun.me') },
                ...crew.people.map((p) => ({ value: p.id, title: p.name })),
              ]}
            />
          </Labelled>
        )}
      </Row>
      <Text colour="quiet">{t('confirmRun.text')}</Text>
      {shorts > 0 && <Signal kind="caution" size="body" text={t('confirmRun.short', { count: shorts })} />}
      <View role="list" aria-label={t('confirmRun.picks')}>
        {open.map((pick) => (
          <PickRow
            key={pick.step.id}
            pick={pick}
            except={except[pick.step.id]}
            faults={asked ? faults.get(pick.step.id)! : {}}
            onChange={(e) =>
              setExcept((before) => {
                const { [pick.step.id]: _, ...others } = before;
                return e ? { ...others, [pick.step.id]: e } : others;
              })
            }
          />
        ))}
      </View>
      {error && <Failed text={words(troubleOf(error))} />}
    </Sheet>
  );
}

function PickRow({
  pick,
  except,
  faults,
  onChange,
}: {
  pick: RunPick;
  except: Exception | undefined;
  faults: Partial<Record<keyof Exception, ExceptionFault>>;
  onChange: (except: Exception | null) => void;
}) {
  const { t } = useTranslation();
  const { step } = pick;
  const serial = step.item.tracksSerial;
  const fault = (name: keyof Exception) => faults[name] && t(`confirmRun.fault.${faults[name]}`, { units: step.units });
  return (
    <View role="listitem" style={{ gap: 8, paddingVertical: 6 }}>
      <Row gap={12} style={{ flexWrap: 'nowrap' }}>
        <Text kind="mono" style={{ width: 76 }}>
          {step.bin}
        </Text>
        <View style={{ flex: 1, minWidth: 0 }}>
          <Text kind="strong" lines={1}>
            {step.item.name}
          </Text>
          <Text kind="small" colour="quiet" lines={1}>
            {[pick.order.number, step.lot, t('confirmRun.place', { place: step.position.number })]
              .filter(Boolean)
              .join(' · ')}
          </Text>
        </View>
        <Text kind="number">{number(step.units)}</Text>
        {!serial && (
          <Checkbox
            shown
            label={t('confirmRun.differs')}
            checked={except !== undefined}
            onPress={() => onChange(except ? null : exceptionOf(pick))}
          />
        )}
      </Row>
      {except && (
        <Row gap={12} style={{ alignItems: 'flex-start', paddingLeft: 88 }}>
          <View style={{ width: 110 }}>
            <Field
              numeric
              label={t('confirmRun.units')}
              value={except.units}
              onChange={(units) => onChange({ ...except, units })}
              error={fault('units')}
            />
          </View>
          {serial && (
            <View style={{ flex: 1, minWidth: 180 }}>
              <Field
                label={t('confirmRun.serials')}
                value={except.serials.join(' ')}
                onChange={(text) => onChange({ ...except, serials: text.split(/[\s,;]+/).filter(Boolean) })}
                error={fault('serials')}
              />
            </View>
          )}
          {Number(except.units) < step.units && (
            <Column gap={6}>
              <Choice
                bare
                label={t('confirmRun.reason')}
                value={except.reason ?? ('' as ShortReason)}
                onChange={(reason) => onChange({ ...except, reason })}
                options={shortReasons.map((value) => ({ value, title: t(`floor.reason.${value}`) }))}
              />
              {fault('reason') && <Failed text={fault('reason')!} />}
              <Field
                bare
                label={t('confirmRun.note')}
                placeholder={t('confirmRun.note')}
                value={except.note}
                onChange={(note) => onChange({ ...except, note })}
              />
            </Column>
          )}
        </Row>
      )}
      <Rule />
    </View>
  );
}
