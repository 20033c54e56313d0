import { useTranslation } from 'react-i18next';
import { api, useAppSelector, useMay, useMayConfirmPicked, useOpenExceptions } from '../state/index.ts';
import { Tabs, type Tab } from '../shell/index.ts';

type Place = 'orders' | 'exceptions' | 'items' | 'tray' | 'surplus' | 'counts' | 'quick' | 'loads' | 'waves' | 'intake';

/** The Desk's own places: the track, orders, items that fall short, the tray, what was picked too much, waves, intake. */
export function DeskTabs({ at }: { at: Place }) {
  const { t } = useTranslation();
  const held = useAppSelector((s) => s.tray.orders.length);
  const { data: tasks } = api.useDeskTasksQuery();
  const owed = tasks?.tasks.length ?? 0;
  const maySettle = useMay('runs.arrange');
  const { data: counts } = api.useCountsQuery(undefined, { skip: !maySettle });
  const toCount = counts?.counts.length ?? 0;
  const exceptions = useOpenExceptions();
  const mayTake = useMay('orders.import');
  const confirms = useMayConfirmPicked();
  const tabs: (Tab & { key: Place; shown?: boolean })[] = [
    { key: 'waves', title: t('nav.waves'), href: '/waves' },
    { key: 'orders', title: t('nav.orders'), href: '/desk' },
    { key: 'exceptions', title: t('nav.exceptions'), href: '/desk/exceptions', count: exceptions },
    { key: 'items', title: t('nav.items'), href: '/desk/items' },
    { key: 'tray', title: t('nav.tray'), href: '/desk/tray', count: held },
    {
      key: 'surplus',
      title: t('nav.surplus'),
      href: '/desk/surplus',
      count: owed,
      shown: owed > 0 || at === 'surplus',
    },
    {
      key: 'counts',
      title: t('nav.counts'),
      href: '/desk/counts',
      count: toCount,
      shown: maySettle && (toCount > 0 || at === 'counts'),
    },
    { key: 'quick', title: t('nav.quick'), href: '/desk/quick', shown: confirms },
    { key: 'loads', title: t('nav.loads'), href: '/desk/loads' },
    { key: 'intake', title: t('nav.intake'), href: '/desk/intake', shown: mayTake },
  ];
  return <Tabs label={t('place.desk')} at={at} tabs={tabs.filter((tab) => tab.shown !== false)} />;
}
