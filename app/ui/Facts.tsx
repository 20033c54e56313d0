import { Linking, Pressable, View } from 'react-native';
import { Text } from './Text.tsx';

export interface Fact {
  name: string;
  value: string;
  /** Address that a tap on the value opens. */
  link?: string | undefined;
}

/** Names over values, as many beside one another as fit. */
export function Facts({ facts, figures = false, min = 110 }: { facts: Fact[]; figures?: boolean; min?: number }) {
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 24, rowGap: 12 }}>
      {facts.map(({ name, value, link }) => (
        <View key={name} style={{ minWidth: min, maxWidth: '100%', flexShrink: 1 }}>
          <Text kind="small" colour="quiet">
            {name}
          </Text>
          {link ? (
            <Pressable role="link" aria-label={value} onPress={() => void Linking.openURL(link)}>
              <Text kind="strong" style={{ textDecorationLine: 'underline' }}>
                {value}
              </Text>
            </Pressable>
          ) : (
            <Text kind={figures ? 'figure' : 'strong'}>{value}</Text>
          )}
        </View>
      ))}
    </View>
  );
}
