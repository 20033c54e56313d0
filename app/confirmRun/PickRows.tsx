import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { RunPick } from '@hand-relay/contract';
import { shortReasons, type ShortReason } from '@hand-relay/core/handling/picking';
import { number } from '../text/index.ts';
import { Checkbox, Choice, Column, Failed, Field, Row, Rule, Text } from '../ui/index.ts';
import { exceptionOf, type Exception, type ExceptionFault, type Exceptions } from './exception.ts';

type Faults = Partial<Record<keyof Exception, ExceptionFault>>;

/** Open picks of a run, each to be ticked where it differs from the plan. */
export function PickRows({
  picks,
  except,
  faults,
  onChange,
}: {
  picks: RunPick[];
  except: Exceptions;
  /** What is wrong with each; null while nobody has asked. */
  faults: ReadonlyMap<string, Faults> | null;
  onChange: (except: Exceptions) => void;
}) {
  const { t } = useTranslation();
  return (
    <View role="list" aria-label={t('confirmRun.picks')}>
      {picks.map((pick) => (
        <PickRow
          key={pick.step.id}
          pick={pick}
          except={except[pick.step.id]}
          faults={faults?.get(pick.step.id) ?? {}}
          onChange={(e) => {
            const { [pick.step.id]: _, ...others } = except;
            onChange(e ? { ...others, [pick.step.id]: e } : others);
          }}
        />
      ))}
    </View>
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
  faults: Faults;
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
