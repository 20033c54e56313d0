import type { ReactNode } from 'react';
import { View } from 'react-native';
import { SurfaceContext, useSurface } from '../ui/index.ts';

/** A surface with all below it in its colours. */
export function Ground({ surface, children }: { surface: 'paper' | 'floor'; children: ReactNode }) {
  return (
    <SurfaceContext.Provider value={surface}>
      <Filled>{children}</Filled>
    </SurfaceContext.Provider>
  );
}

function Filled({ children }: { children: ReactNode }) {
  const { ground, name } = useSurface();
  return (
    <View {...({ dataSet: { surface: name } } as object)} style={{ flex: 1, minHeight: 0, backgroundColor: ground }}>
      {children}
    </View>
  );
}
