import { useTranslation } from 'react-i18next';
import type { SavedView } from '@hand-relay/contract';
import { api } from '../state/index.ts';
import { Button, Row } from '../ui/index.ts';

/** What is kept by name of a list: one touch brings one back, and the one that is shown can be dropped. */
export function KeptKeys({
  list,
  isHere,
  onChoose,
}: {
  list: SavedView['list'];
  /** Whether what is shown is this one. */
  isHere: (settings: SavedView['settings']) => boolean;
  onChoose: (settings: SavedView['settings']) => void;
}) {
  const { t } = useTranslation();
  const { data } = api.useSavedViewsQuery();
  const [drop] = api.useDeleteViewMutation();
  return (
    <>
      {(data?.views ?? [])
        .filter((view) => view.list === list)
        .map(({ id, name, settings, mine }) => {
          const here = isHere(settings);
          return (
            <Row key={id} gap={2} style={{ flexWrap: 'nowrap' }}>
              <Button
                title={mine ? name : t('views.ofOthers', { name })}
                size="small"
                pressed={here}
                onPress={() => onChoose(settings)}
              />
              {here && mine && (
                <Button
                  title={t('views.drop', { name })}
                  icon="close"
                  iconOnly
                  size="small"
                  onPress={() => void drop(id)}
                />
              )}
            </Row>
          );
        })}
    </>
  );
}
