import { Linking, View } from 'react-native';
import { LinkBox } from './LinkBox.tsx';
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
            <LinkBox href={link} label={value} onOpen={() => void Linking.openURL(link)}>
              <Text kind="strong" style={{ textDecorationLine: 'underline' }}>
                {value}
              </Text>
            </LinkBox>
          ) : (
            <Text kind={figures ? 'figure' : 'strong'}>{value}</Text>
          )}
        </View>
      ))}
    </View>
  );
}
