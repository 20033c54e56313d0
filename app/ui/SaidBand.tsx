import { useWindowDimensions, View } from 'react-native';
import { Signal } from './Signal.tsx';
import { useSurface, WIDE } from './theme.ts';

/** What was last said of what a person did. */
export interface Said {
  kind: 'done' | 'refused' | 'caution';
  text: string;
  /** Said larger than all else: where something goes. */
  loud?: boolean;
}

const BAND = 64;

/** What was last said, as a band in its colour with its shape; on a wide screen its room is kept. */
export function SaidBand({ said }: { said: Said | null }) {
  const surface = useSurface();
  const wide = useWindowDimensions().width >= WIDE;
  return (
    <View
      aria-live="assertive"
      style={{
        minHeight: wide || said ? BAND : 0,
        justifyContent: 'center',
        paddingHorizontal: 16,
        borderRadius: 4,
        borderWidth: said ? 3 : wide ? 1 : 0,
        borderColor: said ? surface[said.kind] : surface.line,
      }}
    >
      {said && <Signal kind={said.kind} text={said.text} size={said.loud ? 'title' : 'large'} />}
    </View>
  );
}
