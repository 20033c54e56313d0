import { useTranslation } from 'react-i18next';
import { useWindowDimensions } from 'react-native';
import { Empty, WIDE } from '../ui/index.ts';
import { DockList } from './DockList.tsx';

export function DockHome() {
  const { width } = useWindowDimensions();
  const { t } = useTranslation();
  return width < WIDE ? <DockList /> : <Empty title={t('dock.title')} text={t('dock.pick')} />;
}
