import { useRouter } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { Ground } from '../shell/index.ts';
import { Empty } from '../ui/index.ts';

export default function NotFound() {
  const { t } = useTranslation();
  const router = useRouter();
  return (
    <Ground surface="paper">
      <Empty
        title={t('state.nowhere')}
        text=""
        action={{ title: t('state.home'), onPress: () => router.replace('/') }}
      />
    </Ground>
  );
}
