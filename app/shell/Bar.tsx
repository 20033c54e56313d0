import type { ReactNode } from 'react';
import { View } from 'react-native';
import { charcoal, Row, SurfaceContext } from '../ui/index.ts';

interface BarProps {
  children: ReactNode;
  /** The key at its end. */
  action?: ReactNode;
}

/** A bar above the page that says something which concerns every page. */
export function Bar({ children, action }: BarProps) {
  return (
    <SurfaceContext.Provider value="floor">
      <Row
        gap={12}
        style={{ backgroundColor: charcoal, paddingHorizontal: 12, paddingVertical: 4, flexWrap: 'nowrap' }}
      >
        <View role="status" style={{ flex: 1, minWidth: 0, gap: 2 }}>
          {children}
        </View>
        {action}
      </Row>
    </SurfaceContext.Provider>
  );
}
