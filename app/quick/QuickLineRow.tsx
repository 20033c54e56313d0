import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View, type TextInput } from 'react-native';
import type { QuickLine } from '@hand-relay/contract';
import { countAt, countOf, isByPlace, placeKey, placesOf, type Typed } from '@hand-relay/core/deciding/quick';
import { useMe, useNow } from '../state/index.ts';
import { dayName, number } from '../text/index.ts';
import { Button, Column, Field, Row, Signal, Text, WIDE } from '../ui/index.ts';

interface LineProps {
  line: QuickLine;
  typed: Typed;
  disabled: boolean;
  onTyped: (key: string, text: string) => void;
  onNext: () => void;
  field: (input: TextInput | null) => void;
}

/** One line: what of it there is and where, and how much of it was picked; by bin, where it came out of others. */
export function QuickLineRow({ line, typed, disabled, onTyped, onNext, field }: LineProps) {
  const { t } = useTranslation();
  const wide = useWindowDimensions().width >= WIDE;
  const [places, setPlaces] = useState(false);
  const counted = countOf(line, typed);
  const byPlace = isByPlace(line, typed);
  const bins = line.from.map((f) => `${f.bin}${f.lot ? ` (${f.lot})` : ''}: ${number(f.units)}`).join(', ');
  const own = typed[line.line];
  return (
    <View style={{ paddingLeft: wide ? 44 : 0, gap: 4 }}>
      <Row gap={12} style={{ flexWrap: 'nowrap', alignItems: 'flex-start' }}>
        <Column gap={0} style={{ flex: 1, minWidth: 0 }}>
          <Text lines={1}>
            {line.name} <Text colour="quiet">{line.sku}</Text>
          </Text>
          <Row gap={8}>
            <Text kind="strong">{bins || t('quick.noBin')}</Text>
            {!disabled && !line.tracksSerial && line.others.length > 0 && (
              <Button
                size="small"
                pressed={places}
                title={t('quick.places')}
                label={t('quick.placesOf', { line: line.number, name: line.name })}
                onPress={() => setPlaces(!places)}
              />
            )}
          </Row>
          {line.tracksSerial && line.others.length > 0 && (
            <Text kind="small" colour="quiet">
              {t('quick.alsoIn', { bins: line.others.map((o) => o.bin).join(', ') })}
            </Text>
          )}
          {line.note !== '' && <Signal kind="caution" text={line.note} />}
          {line.gets < line.asked && (
            <Signal kind="caution" text={t('quick.short', { gets: number(line.gets), asked: number(line.asked) })} />
          )}
        </Column>
        <View style={{ paddingTop: 10 }}>
          <Text kind="number" colour="quiet">
            {t('quick.ofAsked', { asked: number(line.asked), unit: line.unit })}
          </Text>
        </View>
        <View style={{ width: line.tracksSerial ? 180 : 84 }}>
          {!disabled && byPlace && (
            <View style={{ paddingTop: 10, alignItems: 'flex-end' }}>
              <Text kind="number">{number(counted.units)}</Text>
            </View>
          )}
          {!disabled && !byPlace && (
            <Field
              bare
              numeric={!line.tracksSerial}
              label={t(line.tracksSerial ? 'quick.serials' : 'quick.units', { line: line.number, name: line.name })}
              placeholder={line.tracksSerial ? t('quick.serialHint') : String(line.gets)}
              value={own ?? (line.tracksSerial ? '' : String(line.gets))}
              onChange={(text) => onTyped(line.line, text)}
              onSubmit={onNext}
              inputRef={field}
              error={
                counted.wrong ? t(`quick.wrong.${counted.wrong}`, { asked: line.asked, gets: line.gets }) : undefined
              }
            />
          )}
        </View>
      </Row>
      {places && !disabled && <Places line={line} typed={typed} onTyped={onTyped} />}
      {byPlace && counted.wrong === 'more-than-asked' && (
        <Signal kind="refused" text={t('quick.wrong.more-than-asked', { asked: line.asked })} />
      )}
    </View>
  );
}

/** The bins of a line, each with how much was taken out of it. */
function Places({ line, typed, onTyped }: Pick<LineProps, 'line' | 'typed' | 'onTyped'>) {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const keeps = new Map([...line.from, ...line.others].map((p) => [placeKey(line.line, p), p.bestBefore]));
  return (
    <View role="group" aria-label={t('quick.placesOf', { line: line.number, name: line.name })} style={{ gap: 4 }}>
      {placesOf(line).map((place) => {
        const key = placeKey(line.line, place);
        const wrong = countAt(line, place, typed).wrong;
        const day = keeps.get(key);
        return (
          <Row key={key} gap={12} style={{ flexWrap: 'nowrap' }}>
            <View style={{ flex: 1, minWidth: 0 }}>
              <Text kind="strong">{place.bin}</Text>
              {place.lot !== '' && (
                <Text kind="small" colour="quiet">
                  {[place.lot, day && t('quick.keeps', { day: dayName(day, me.site.timeZone, now) })]
                    .filter(Boolean)
                    .join(' · ')}
                </Text>
              )}
            </View>
            <Text kind="number" colour="quiet">
              {t('quick.there', { units: number(place.there) })}
            </Text>
            <View style={{ width: 84 }}>
              <Field
                bare
                numeric
                label={t('quick.unitsOut', { bin: [place.bin, place.lot].filter(Boolean).join(' '), name: line.name })}
                placeholder="0"
                value={typed[key] ?? String(place.units)}
                onChange={(text) => onTyped(key, text)}
                error={wrong ? t(`quick.wrong.${wrong}`, { asked: line.asked, gets: place.there }) : undefined}
              />
            </View>
          </Row>
        );
      })}
    </View>
  );
}
