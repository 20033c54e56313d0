import { View } from 'react-native';
import { Txt } from './Txt.tsx';

export interface Fact {
  name: string;
  value: string;
}

/** Names over values, as many beside one another as fit. */
export function Facts({ facts, figures = false, min = 110 }: { facts: Fact[]; figures?: boolean; min?: number }) {
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 24, rowGap: 12 }}>
      {facts.map(({ name, value }) => (
        <View key={name} style={{ minWidth: min, maxWidth: '100%', flexShrink: 1 }}>
          <Txt kind="small" colour="quiet">
            {name}
          </Txt>
          <Txt kind={figures ? 'figure' : 'strong'}>{value}</Txt>
        </View>
      ))}
    </View>
  );
}
