import { useRouter } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { Linking, View } from 'react-native';
import { addressOf, useMay, useMe } from '../state/index.ts';
import { number } from '../text/index.ts';
import { Icon, LinkBox, Row, Text, useSurface } from '../ui/index.ts';
import { setupColumns, type Entry } from './setupGroups.ts';

/** Everything that can be set up, in groups: as many columns as the screen is wide. */
export function SetupGroups({ counts }: { counts: Partial<Record<string, number>> }) {
  const { t } = useTranslation();
  const shown = useShown();
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 24, rowGap: 16 }}>
      {setupColumns.map((groups) => (
        <View key={groups[0]!.name} style={{ flexGrow: 1, flexBasis: 320, minWidth: 0, gap: 16 }}>
          {groups.map(({ name, entries }) => (
            <View key={name} role="group" aria-label={t(`setup.group.${name}`)}>
              <Text kind="heading" level={2}>
                {t(`setup.group.${name}`)}
              </Text>
              <View style={{ height: 4 }} />
              {entries.filter(shown).map((entry) => (
                <EntryRow key={Object.values(entry).join()} entry={entry} counts={counts} />
              ))}
            </View>
          ))}
        </View>
      ))}
    </View>
  );
}

/** Pages of what stands in for others in trials. */
const STANDINS = new Set<string>(['host', 'scale']);

/** Whether there is anything for this person behind an entry. */
function useShown(): (entry: Entry) => boolean {
  const { standins } = useMe();
  const backups = useMay('house.backups');
  return (entry) => !('page' in entry) || (entry.page === 'backups' ? backups : !STANDINS.has(entry.page) || standins);
}

function EntryRow({ entry, counts }: { entry: Entry; counts: Partial<Record<string, number>> }) {
  const { t } = useTranslation();
  const surface = useSurface();
  const router = useRouter();
  const count = 'list' in entry ? (counts[entry.list] ?? 0) : null;
  const title =
    'list' in entry
      ? t(`setup.sheet.${entry.list}`)
      : 'page' in entry
        ? entry.page === 'site'
          ? t('setup.site')
          : t(`setup.page.${entry.page}`)
        : 'make' in entry
          ? t('setup.makeFloor')
          : t(entry.paper === 'badges' ? 'setup.badges' : 'setup.countSheet');
  const about =
    'list' in entry
      ? t(`setup.about.${entry.list}`)
      : t(`setup.aboutPage.${'page' in entry ? entry.page : 'make' in entry ? entry.make : entry.paper}`);
  const href =
    'list' in entry
      ? `/setup/${entry.list}`
      : 'page' in entry
        ? `/setup/${entry.page}`
        : 'make' in entry
          ? '/setup/floor'
          : addressOf({ name: entry.paper });
  return (
    <LinkBox
      href={href}
      label={count === null ? title : `${title}, ${number(count)}`}
      onOpen={() => ('paper' in entry ? void Linking.openURL(href) : router.navigate(href))}
      style={{ minHeight: 56, paddingVertical: 8, borderTopWidth: 1, borderColor: surface.line }}
    >
      <Row gap={12} style={{ justifyContent: 'space-between', flexWrap: 'nowrap' }}>
        <Text kind="strong">{title}</Text>
        {count !== null && <Text kind="number">{number(count)}</Text>}
        {'paper' in entry && <Icon name="printer-outline" size={18} color={surface.quiet} />}
      </Row>
      <Text kind="small" colour="quiet">
        {about}
      </Text>
    </LinkBox>
  );
}
