import type { ReactNode } from 'react';
import { View } from 'react-native';
import { Row, Shape, Text } from '../ui/index.ts';
import type { LaneMarks } from './Lane.tsx';

/** The shape that a departure's chance is told by. */
export const CHANCE_SHAPE = { made: 'done', tight: 'caution', missed: 'refused' } as const;

/** What stands before a lane: what it is, with its baton where it has one, and under it how it stands. */
export function LaneHead({
  name,
  says,
  chance = null,
  baton,
}: {
  name: string;
  says: string;
  chance?: LaneMarks['chance'];
  baton?: ReactNode;
}) {
  return (
    <View style={{ paddingVertical: 6, minWidth: 0 }}>
      <Row gap={8} style={{ flexWrap: 'nowrap', justifyContent: 'space-between' }}>
        <Text kind="strong" lines={1}>
          {name}
        </Text>
        {baton}
      </Row>
      <Row gap={6} style={{ flexWrap: 'nowrap' }}>
        {chance && <Shape kind={CHANCE_SHAPE[chance]} size={13} />}
        <Text kind="small" colour="quiet" style={{ flexShrink: 1 }}>
          {says}
        </Text>
      </Row>
    </View>
  );
}
