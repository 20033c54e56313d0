import CheckBox from '@rneui/themed/dist/CheckBox';
import { Icon } from './Icon.tsx';
import { fonts, useSurface } from './theme.ts';

/** A box to tick; its label is read, and shown with `shown`. */
export function Checkbox({
  checked,
  onPress,
  label,
  shown = false,
}: {
  checked: boolean;
  onPress: () => void;
  label: string;
  shown?: boolean;
}) {
  const surface = useSurface();
  return (
    <CheckBox
      checked={checked}
      onPress={onPress}
      {...(shown ? { title: label } : {})}
      aria-label={label}
      aria-checked={checked}
      checkedIcon={<Icon name="checkbox-marked" size={22} color={surface.ink} />}
      uncheckedIcon={<Icon name="checkbox-blank-outline" size={22} color={surface.quiet} />}
      containerStyle={{
        margin: 0,
        marginLeft: 0,
        marginRight: 0,
        padding: 6,
        backgroundColor: 'transparent',
        borderWidth: 0,
      }}
      textStyle={{ color: surface.ink, fontFamily: fonts.text, fontWeight: 'normal', fontSize: 15 }}
    />
  );
}
