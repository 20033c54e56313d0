import { useState, type ReactNode } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { Card, Column, Row } from './Box.tsx';
import { Button } from './Button.tsx';
import { Picker } from './Picker.tsx';
import { Signal } from './Signal.tsx';
import { Text } from './Text.tsx';
import { useNarrow } from './theme.ts';

/** How a file's headings were matched with the columns that are wanted. */
export interface MatchedColumns {
  heading: string[];
  matching: Record<string, string | null>;
  guesses: string[];
  samples: Record<string, string[]>;
}

export interface MatchColumn {
  name: string;
  title: string;
  needed: boolean;
}

/** Values of columns that a file does not have, the same in every row. */
export interface SameForAll {
  values: Record<string, string>;
  onChange: (column: string, value: string | null) => void;
  /** What a column begins with, when it is chosen. */
  first: (column: string) => string;
  field: (column: string, value: string, onChange: (value: string) => void) => ReactNode;
}

const LEFT_OUT = '';
const SAME = '\u0000';

/** Which heading of a file is which column, with values by which people know it: guesses to confirm come first. */
export function MatchColumns({
  columns,
  seen,
  onMatch,
  same,
  children,
}: {
  columns: MatchColumn[];
  seen: MatchedColumns;
  onMatch: (column: string, heading: string | null) => void;
  same?: SameForAll;
  /** What else says how the file is read. */
  children?: ReactNode;
}) {
  const { t } = useTranslation();
  const narrow = useNarrow();
  const fixed = (name: string) => same?.values[name];
  const lacks = (c: MatchColumn) => c.needed && !seen.matching[c.name] && !fixed(c.name);
  const [all, setAll] = useState(false);
  // What was missing at first stays in view while it is matched.
  const [first] = useState(() => new Set(columns.filter(lacks).map((c) => c.name)));
  const used = new Set(Object.values(seen.matching));
  const free = seen.heading.filter((h) => h !== '' && !used.has(h));
  const samples = (heading: string | null | undefined) =>
    heading ? (seen.samples[heading] ?? []).join(' · ') || t('match.noValues') : '';
  const choose = (name: string, heading: string) => {
    if (heading === SAME) return same!.onChange(name, same!.first(name));
    if (fixed(name) !== undefined) same!.onChange(name, null);
    onMatch(name, heading === LEFT_OUT ? null : heading);
  };
  const optionsOf = (c: MatchColumn) => [
    ...(c.needed && seen.matching[c.name]
      ? []
      : [{ value: LEFT_OUT, title: t(c.needed ? 'match.choose' : 'match.leftOut') }]),
    ...(same ? [{ value: SAME, title: t('match.same') }] : []),
    ...seen.heading.filter((h) => h !== '').map((h) => ({ value: h, title: h })),
  ];
  return (
    <Card gap={8}>
      <Row gap={12} style={{ justifyContent: 'space-between' }}>
        <Text kind="heading" level={3}>
          {t('match.title')}
        </Text>
        <Button size="small" title={t(all ? 'match.less' : 'match.more')} pressed={all} onPress={() => setAll(!all)} />
      </Row>
      {columns
        .filter((c) => seen.guesses.includes(c.name))
        .map(({ name, title }) => {
          const heading = seen.matching[name]!;
          const question = t('match.isIt', { heading, column: title });
          return (
            <View key={name} role="group" aria-label={question} style={{ gap: 6 }}>
              <Signal kind="caution" text={question} size="body" />
              <Text colour="quiet">{t('match.holds', { values: samples(heading) })}</Text>
              <Row gap={8}>
                <Button size="small" title={t('match.useIt')} onPress={() => onMatch(name, heading)} />
                <Button size="small" title={t('match.ignoreIt')} onPress={() => onMatch(name, null)} />
              </Row>
            </View>
          );
        })}
      {free.length > 0 && <Text colour="quiet">{t('match.unused', { headings: free.join(', ') })}</Text>}
      {columns
        .filter((c) => all || first.has(c.name) || lacks(c))
        .map((c) => {
          const { name, title } = c;
          const value = fixed(name);
          return (
            <Row key={name} gap={12}>
              <Text style={{ width: narrow ? '100%' : 170 }}>{title}</Text>
              <View style={{ width: 220 }}>
                <Picker
                  label={t('match.headingOf', { column: title })}
                  value={value !== undefined ? SAME : (seen.matching[name] ?? LEFT_OUT)}
                  onChange={(heading) => choose(name, heading)}
                  options={optionsOf(c)}
                />
              </View>
              {value !== undefined ? (
                <View style={{ width: 220 }}>{same!.field(name, value, (next) => same!.onChange(name, next))}</View>
              ) : lacks(c) ? (
                <Signal kind="refused" text={t('match.needed')} />
              ) : (
                <Text kind="mono" colour="quiet" lines={1} style={{ flexShrink: 1 }}>
                  {samples(seen.matching[name])}
                </Text>
              )}
            </Row>
          );
        })}
      {all && children && <Column gap={8}>{children}</Column>}
    </Card>
  );
}
