import { createContext, useContext } from 'react';
import { useWindowDimensions } from 'react-native';

/** The two surfaces of the house: paper for desks, floor for hands. */
export type SurfaceName = 'paper' | 'floor';

export const charcoal = '#1E2326';
const light = '#F4F3EF';
export const hivis = '#DDF527';

export interface Surface {
  name: SurfaceName;
  ground: string;
  /** Ground of cards, fields and table heads. */
  raised: string;
  sunk: string;
  ink: string;
  quiet: string;
  line: string;
  /** The key that does what comes next. */
  act: string;
  onAct: string;
  caution: string;
  refused: string;
  done: string;
  cold: string;
  chosen: string;
}

export const surfaces: Record<SurfaceName, Surface> = {
  paper: {
    name: 'paper',
    ground: light,
    raised: '#FCFBF8',
    sunk: '#E9E7E0',
    ink: charcoal,
    quiet: '#57606A',
    line: '#C9C6BC',
    act: charcoal,
    onAct: hivis,
    caution: '#8A5200',
    refused: '#B3261E',
    done: '#17694A',
    cold: '#1B5E9B',
    chosen: '#E4E2D8',
  },
  floor: {
    name: 'floor',
    ground: charcoal,
    raised: '#2A3034',
    sunk: '#15191B',
    ink: light,
    quiet: '#A9B1B6',
    line: '#485056',
    act: hivis,
    onAct: charcoal,
    caution: '#F2A33A',
    refused: '#FF7A7D',
    done: '#3FB68B',
    cold: '#5AA9E6',
    chosen: '#343B40',
  },
};

export const fonts = {
  text: 'Barlow_400Regular',
  medium: 'Barlow_500Medium',
  strong: 'Barlow_600SemiBold',
  heading: 'BarlowSemiCondensed_600SemiBold',
  code: 'BarlowSemiCondensed_700Bold',
  mono: 'RobotoMono_400Regular',
} as const;

/** From this width a screen shows list and detail side by side. */
export const WIDE = 1000;
const NARROW = 260;
/** Whether the screen is that of a phone whose letters are set very large: what can be done without is left out. */
export const useNarrow = (): boolean => useWindowDimensions().width < NARROW;

export const SurfaceContext = createContext<SurfaceName>('paper');

export function useSurface(): Surface {
  return surfaces[useContext(SurfaceContext)];
}
