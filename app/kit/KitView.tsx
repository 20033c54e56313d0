import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { ScrollView, useWindowDimensions, View } from 'react-native';
import { legs, type Baton as BatonState } from '@hand-relay/core/handling/progress';
import {
  Baton,
  Card,
  Choice,
  Column,
  DataTable,
  Empty,
  Facts,
  Failed,
  Field,
  FloorPlan,
  Button,
  Labelled,
  Loading,
  Picture,
  Ribbon,
  Row,
  ScanField,
  Shape,
  Sheet,
  Signal,
  StepCard,
  SurfaceContext,
  Checkbox,
  Text,
  useSurface,
  WIDE,
  type SurfaceName,
} from '../ui/index.ts';
import { en } from '../text/en.ts';

const samples = {
  none: { filled: { desk: 0, floor: 0, bench: 0, dock: 0 }, at: 'desk', late: false },
  floor: { filled: { desk: 1, floor: 0.4, bench: 0, dock: 0 }, at: 'floor', late: false },
  bench: { filled: { desk: 1, floor: 1, bench: 0.7, dock: 0 }, at: 'bench', late: false },
  late: { filled: { desk: 1, floor: 0.6, bench: 0, dock: 0 }, at: 'floor', late: true },
  done: { filled: { desk: 1, floor: 1, bench: 1, dock: 1 }, at: null, late: false },
} satisfies Record<string, BatonState>;

const pictures = [
  'frame/SB/0',
  'wax/S/1',
  'jar/340/3',
  'jar/227/14',
  'lid/gold/1',
  'smoker/S/2',
  'suit/M/2',
  'glove/L/3',
  'veil/R/0',
  'canister/5/1',
  'tub/500/1',
  'block/2/1',
  'drum/4/1',
  'refractometer/H/0',
  'scale/S/1',
  'flask/500/1',
  'box/S/0',
  'box/S/2',
  'tool/J/0',
  'fork/F/3',
  'brush/S/0',
  'pen/red/2',
  'pen/blue/7',
  'cage/P/0',
  'feeder/R/0',
  'sieve/D/0',
  'bucket/10/1',
  'mould/P/2',
  'spool/3/2',
  'roll/H/0',
  'sack/C/2',
];

const plan = {
  aisles: ['A', 'B', 'C'].map((id, i) => ({ id, x: i * 3.4 })),
  crossAisles: [0, 12],
  bins: ['A', 'B', 'C'].flatMap((aisle) =>
    [1, 2, 3, 4, 5, 6, 7, 8].flatMap((n) =>
      ['left', 'right'].map((side) => ({
        bin: `${aisle}-${n}-${side}`,
        aisle,
        y: n * 1.2 + 0.6,
        side,
        zone: aisle === 'C' ? 'cold' : 'dry',
      })),
    ),
  ),
  start: { aisle: 'A', y: 0 },
  finish: null,
  blocked: [],
  places: [],
  zones: [
    { code: 'dry', name: 'Dry', cold: false },
    { code: 'cold', name: 'Cold', cold: true },
  ],
};

/** The kit on a page of its own: every piece in every state, on paper and on floor. */
export function KitView() {
  const { t } = useTranslation();
  const { width } = useWindowDimensions();
  return (
    <ScrollView style={{ flex: 1 }} contentContainerStyle={{ flexDirection: width >= WIDE ? 'row' : 'column' }}>
      {(['paper', 'floor'] as const).map((surface) => (
        <SurfaceContext.Provider key={surface} value={surface}>
          <Side surface={surface} title={t('kit.title')} intro={t('kit.intro')} />
        </SurfaceContext.Provider>
      ))}
    </ScrollView>
  );
}

function Side({ surface, title, intro }: { surface: SurfaceName; title: string; intro: string }) {
  const { ground } = useSurface();
  const [text, setText] = useState('');
  const [choice, setChoice] = useState('day');
  const [ticked, setTicked] = useState(true);
  const [scanned, setScanned] = useState('');
  const [sheet, setSheet] = useState(false);
  const rows = ['LA-20001', 'LA-20002', 'LA-20003'].map((number, i) => ({ number, units: (i + 1) * 1240 }));
  return (
    <View
      role={surface === 'paper' ? 'main' : 'region'}
      aria-label={surface}
      style={{ flex: 1, gap: 28, padding: 20, backgroundColor: ground }}
    >
      <Column gap={4}>
        <Text kind="title" level={1}>
          {title}: {surface}
        </Text>
        <Text colour="quiet">{intro}</Text>
      </Column>
      <Labelled label="Baton">
        {Object.entries(samples).map(([name, state]) => (
          <Row key={name} gap={12}>
            <Baton state={state} label={name} scale={1.6} />
            <Text kind="small">
              {name === 'done'
                ? en.baton.done
                : `${en.place[state.at ?? legs[0]]}${state.late ? `, ${en.baton.late}` : ''}`}
            </Text>
          </Row>
        ))}
      </Labelled>
      <Labelled label="Keys">
        {(['small', 'desk', 'floor'] as const).map((size) => (
          <Row key={size}>
            <Button size={size} kind="act" title="Release 14 orders" onPress={() => undefined} />
            <Button size={size} title="Not now" onPress={() => undefined} />
            <Button size={size} kind="danger" title="Cancel the rest" onPress={() => undefined} />
            <Button size={size} icon="undo" iconOnly title="Undo" onPress={() => undefined} />
          </Row>
        ))}
        <Row>
          <Button kind="act" title="Switched off" disabled onPress={() => undefined} />
          <Button title="Switched off" disabled onPress={() => undefined} />
          <Button kind="act" title="At work" busy onPress={() => undefined} />
          <Button title="Pressed in" pressed onPress={() => undefined} />
        </Row>
      </Labelled>
      <Labelled label="Signals">
        <Signal kind="done" text="All that was picked is packed." size="body" />
        <Signal kind="caution" text="2 lines fall short." size="body" />
        <Signal kind="refused" text="This is bin B-07-2. Go to B-05-1." size="body" />
        <Signal kind="cold" text="Chilled" size="body" />
        <Signal kind="quiet" text="Ships complete or not at all" size="body" />
        <Row>
          {(['done', 'caution', 'refused', 'cold', 'quiet'] as const).map((k) => (
            <Shape key={k} kind={k} size={28} />
          ))}
        </Row>
      </Labelled>
      <Labelled label="Step card">
        <View style={{ height: 400 }}>
          <StepCard
            verb="Go to"
            code="B-07-2"
            item={{ name: 'Hexagon jar, 340 ml', sku: 'JR-011', picture: 'jar/340/10' }}
            count="24 × jar"
            facts={['Glass', 'Inner of 12']}
            foot={[
              { label: 'Then left', value: '60' },
              { label: 'Next', value: 'B-09-1' },
            ]}
            notes={['Order: Fragile, please pad well']}
          />
        </View>
        <View style={{ height: 400 }}>
          <StepCard
            verb="Pick"
            code="24"
            unit="× jar"
            item={{ name: 'Hexagon jar, 340 ml', sku: 'JR-011', picture: 'jar/340/10' }}
            count="12 of 24 × jar"
            facts={['B-07-2']}
            notes={[]}
            verdict={{ kind: 'refused', text: 'This is Hexagon jar, 227 ml. Pick Hexagon jar, 340 ml.' }}
          />
        </View>
        <View style={{ height: 400 }}>
          <StepCard
            verb="Put into"
            code="Place 3"
            item={{ name: 'Pollen paste, plain, 500 g', sku: 'PP-002', picture: 'tub/500/1' }}
            count="6 of 6 × tub"
            facts={['M-20-1', 'Lot A4802, best before 2027-08-09']}
            notes={[]}
            cold="Chilled"
            verdict={{ kind: 'done', text: 'Picked 24 × Hexagon jar, 340 ml' }}
          />
        </View>
      </Labelled>
      <Labelled label="Ribbon">
        <Ribbon
          label="Stops"
          onPress={() => {}}
          current="B-09-1"
          stops={[
            { key: 'A-03-1', state: 'done' },
            { key: 'B-07-2', state: 'short' },
            { key: 'B-09-1', state: 'open' },
            { key: 'C-01-4', state: 'open' },
          ]}
        />
      </Labelled>
      {surface === 'floor' ? (
        <Labelled label="Scan field">
          <ScanField label="Scan bin B-07-2" onCode={setScanned} />
          <ScanField size="desk" label="Switched off" disabled onCode={setScanned} />
          <Text kind="mono" live="polite" id="scanned">
            {scanned || '–'}
          </Text>
        </Labelled>
      ) : (
        <Labelled label="Fields">
          <Field label="Why" value={text} onChange={setText} placeholder="In three letters at least" />
          <Field label="Why" value="no" onChange={() => undefined} error="Say why, in three letters at least." />
        </Labelled>
      )}
      <Labelled label="Choices">
        <Choice
          label="Group by"
          value={choice}
          onChange={setChoice}
          options={['day', 'departure', 'nothing'].map((value) => ({ value, title: value }))}
        />
        <Checkbox shown checked={ticked} onPress={() => setTicked(!ticked)} label="Mark order LA-20001" />
      </Labelled>
      <Labelled label="Table">
        <View style={{ height: 230 }}>
          <DataTable
            columns={[
              {
                key: 'number',
                title: 'Order',
                width: 1,
                sortable: true,
                cell: (r) => <Text kind="strong">{r.number}</Text>,
              },
              {
                key: 'units',
                title: 'Units',
                width: 90,
                fixed: true,
                align: 'right',
                sortable: true,
                cell: (r) => <Text kind="number">{r.units.toLocaleString('en-GB')}</Text>,
              },
              {
                key: 'stage',
                title: 'Stage',
                width: 140,
                fixed: true,
                cell: () => <Baton state={samples.floor} label={en.place.floor} />,
              },
            ]}
            entries={[
              { kind: 'group', key: 'today', title: 'today', detail: '3 orders' },
              ...rows.map((row) => ({ kind: 'row' as const, key: row.number, row })),
            ]}
            sort={{ key: 'number', down: false }}
            onSort={() => undefined}
            current="LA-20002"
            chosen={new Set(['LA-20003'])}
            onChoose={() => undefined}
            chooseAllLabel="Mark all shown"
            nameOf={(r) => r.number}
          />
        </View>
      </Labelled>
      <Labelled label="Empty, loading, failed">
        <Card pad={0}>
          <Empty
            title="No order matches"
            text="Loosen the filter, or show all open orders."
            action={{ title: 'Clear the filter', onPress: () => undefined }}
          />
        </Card>
        <Card pad={0}>
          <Loading rows={3} />
        </Card>
        <Card pad={0}>
          <Failed text="The server does not answer. Your entry is kept here: try again." onRetry={() => undefined} />
        </Card>
      </Labelled>
      <Labelled label="Facts">
        <Facts
          facts={[
            { name: 'Customer', value: 'Hollin Orchards, class A' },
            { name: 'Departure', value: 'today 15:00, in 25 min' },
          ]}
        />
        <Facts
          figures
          facts={[
            { name: 'Lines', value: '1,028' },
            { name: 'Units', value: '8,943' },
          ]}
        />
      </Labelled>
      <Labelled label="Sheet">
        <Row>
          <Button title="Open the sheet" onPress={() => setSheet(true)} />
        </Row>
        {sheet && (
          <Sheet
            title="What a release would do"
            onClose={() => setSheet(false)}
            keys={<Button kind="act" title="Close" onPress={() => setSheet(false)} />}
          >
            <Text>Every line gets all it asks.</Text>
          </Sheet>
        )}
      </Labelled>
      <Labelled label="Floor plan">
        <FloorPlan
          plan={plan}
          label="Three aisles"
          path={[
            [0, 0],
            [0, 6.6],
            [0, 12],
            [3.4, 12],
            [3.4, 3],
            [3.4, 0],
            [0, 0],
          ]}
          stops={[
            { aisle: 'A', y: 6.6, number: 1, done: true },
            { aisle: 'B', y: 3, number: 2, done: false },
          ]}
        />
      </Labelled>
      <Labelled label="Pictures">
        <Row>
          {pictures.map((name) => (
            <Picture key={name} name={name} size={64} />
          ))}
        </Row>
      </Labelled>
    </View>
  );
}
