import { useTranslation } from 'react-i18next';
import type { KeptView } from '@hand-relay/contract';
import { api } from '../state/index.ts';
import { Key, Row } from '../ui/index.ts';

/** What is kept by name of a list: one touch brings one back, and the one that is shown can be dropped. */
export function KeptKeys({
  list,
  isHere,
  onChoose,
}: {
  list: KeptView['list'];
  /** Whether what is shown is this one. */
  isHere: (settings: KeptView['settings']) => boolean;
  onChoose: (settings: KeptView['settings']) => void;
}) {
  const { t } = useTranslation();
  const { data } = api.useKeptViewsQuery();
  const [drop] = api.useDropViewMutation();
  return (
    <>
      {(data?.views ?? [])
        .filter((view) => view.list === list)
        .map(({ id, name, settings }) => {
          const here = isHere(settings);
          return (
            <Row key={id} gap={2} style={{ flexWrap: 'nowrap' }}>
              <Key title={name} size="small" pressed={here} onPress={() => onChoose(settings)} />
              {here && (
                <Key
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
