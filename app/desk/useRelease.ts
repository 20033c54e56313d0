import { useRouter } from 'expo-router';
import { useEffect } from 'react';
import { useTranslation } from 'react-i18next';
import type { Tray } from '@hand-relay/contract';
import { api, fill, releaseOf, notify, useAppDispatch } from '../state/index.ts';

/** Looks at what a release would do whenever what is to be released changes, and does it; `start` plans and starts the wave. */
export function useRelease(tray: Tray, wave: string | null) {
  const { t } = useTranslation();
  const router = useRouter();
  const send = useAppDispatch();
  const [look, looked] = api.usePreviewReleaseMutation();
  const [release, releasing] = api.useReleaseMutation();
  const asked = JSON.stringify(releaseOf(tray, wave));
  const again = () => void look(JSON.parse(asked) as ReturnType<typeof releaseOf>);
  useEffect(() => {
    if (tray.orders.length > 0) again();
    // Looked at again when what is asked changes.
    // oxlint-disable-next-line react-hooks/exhaustive-deps
  }, [asked]);
  const go = async ({ start = false } = {}) => {
    const done = await release({ ...(JSON.parse(asked) as ReturnType<typeof releaseOf>), start });
    if (!done.data) return false;
    send(fill({ orders: [] }));
    send(
      notify({
        kind: 'done',
        text: t(start ? 'release.started' : 'release.done', {
          number: done.data.number,
          orders: t('unit.orders', { count: done.data.preview.orders }),
        }),
        about: done.data.wave,
        undo: { name: 'unrelease', body: { lines: done.data.given, wave: done.data.wave } },
      }),
    );
    router.navigate(`/waves/${done.data.wave}`);
    return true;
  };
  return {
    look: looked.data,
    failed: looked.error,
    looking: looked.isLoading,
    refused: releasing.error,
    busy: releasing.isLoading,
    again,
    go,
  };
}
