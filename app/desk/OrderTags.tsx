import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { OrderDetail } from '@hand-relay/contract';
import { api, troubleOf, useMay, words } from '../state/index.ts';
import { Failed, Field, Button, Row, Text, useSurface } from '../ui/index.ts';

/** The words that an order is marked with; whoever may release or choose adds some and takes some off. */
export function OrderTags({ order }: { order: OrderDetail }) {
  const { t } = useTranslation();
  const surface = useSurface();
  const releases = useMay('orders.release');
  const may = useMay('orders.choose') || releases;
  const [tag, { isLoading, error }] = api.useTagOrdersMutation();
  const [typed, setTyped] = useState<string | null>(null);
  if (!may && order.tags.length === 0) return null;
  const good = typed !== null && /^[^,;|]{1,24}$/.test(typed.trim());
  const add = () => {
    if (good) void tag({ orders: [order.id], add: [typed.trim()] }).then((done) => done.data && setTyped(null));
  };
  return (
    <Row gap={6}>
      {order.tags.length > 0 && (
        <View
          role="list"
          aria-label={t('order.tags')}
          style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 6 }}
        >
          {order.tags.map((name) => (
            <View
              key={name}
              role="listitem"
              style={{
                flexDirection: 'row',
                alignItems: 'center',
                borderWidth: 1,
                borderColor: surface.line,
                borderRadius: 4,
                paddingLeft: 10,
                gap: 8,
                paddingRight: may ? 0 : 10,
                minHeight: 36,
              }}
            >
              <Text>{name}</Text>
              {may && (
                <Button
                  size="small"
                  icon="close"
                  iconOnly
                  title={t('order.tagDrop', { tag: name })}
                  onPress={() => void tag({ orders: [order.id], remove: [name] })}
                />
              )}
            </View>
          ))}
        </View>
      )}
      {may && typed === null && <Button size="small" title={t('order.tagAdd')} onPress={() => setTyped('')} />}
      {typed !== null && (
        <>
          <View style={{ width: 180 }}>
            <Field
              bare
              focus
              label={t('order.tagName')}
              placeholder={t('order.tagName')}
              value={typed}
              onChange={setTyped}
              onSubmit={add}
              error={typed.trim() === '' || good ? undefined : t('order.tagWrong')}
            />
          </View>
          <Button size="small" title={t('order.tagAdd')} disabled={!good} busy={isLoading} onPress={add} />
          <Button size="small" title={t('release.cancel')} onPress={() => setTyped(null)} />
        </>
      )}
      {error && <Failed text={words(troubleOf(error))} />}
    </Row>
  );
}
