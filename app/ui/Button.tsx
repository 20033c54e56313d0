import BaseButton from '@rneui/themed/dist/Button';
import { Icon, type IconName } from './Icon.tsx';
import { fonts, useSurface } from './theme.ts';

export interface ButtonProps {
  title: string;
  onPress: () => void;
  /** `act` is what to do next; `plain` all else; `danger` takes something away. */
  kind?: 'act' | 'plain' | 'danger';
  size?: 'small' | 'desk' | 'floor';
  icon?: IconName;
  disabled?: boolean;
  busy?: boolean;
  /** Fills its row. */
  wide?: boolean;
  /** Only the icon is shown; the title is read. */
  iconOnly?: boolean;
  /** Whether it is pressed in, where it switches something. */
  pressed?: boolean;
  label?: string;
  /** Part of a strip of choices: whether it is the one that is chosen. */
  chosen?: boolean;
}

const heights = { small: 36, desk: 44, floor: 64 } as const;

/** A key: something that does what its title says. */
export function Button({
  title,
  onPress,
  kind = 'plain',
  size = 'desk',
  icon,
  disabled = false,
  busy = false,
  wide = false,
  iconOnly = false,
  pressed,
  label,
  chosen,
}: ButtonProps) {
  const surface = useSurface();
  const strip = chosen !== undefined;
  const colour = chosen
    ? surface.ground
    : kind === 'act'
      ? surface.onAct
      : kind === 'danger'
        ? surface.refused
        : surface.ink;
  const ground = chosen ? surface.ink : kind === 'act' ? surface.act : pressed ? surface.chosen : 'transparent';
  const switched = chosen ?? pressed;
  const height = heights[size];
  return (
    <BaseButton
      {...(iconOnly ? {} : { title })}
      onPress={onPress}
      disabled={disabled}
      loading={busy}
      loadingProps={{ color: colour, 'aria-label': title }}
      accessibilityLabel={label ?? title}
      {...(switched === undefined ? {} : { 'aria-pressed': switched })}
      aria-disabled={disabled}
      {...(icon
        ? {
            icon: (
              <Icon
                name={icon}
                size={size === 'floor' ? 26 : 20}
                color={colour}
                style={iconOnly ? {} : { marginRight: 8 }}
              />
            ),
          }
        : {})}
      containerStyle={[
        // The focus ring lies outside of the key.
        { borderRadius: strip ? 0 : 4, overflow: 'visible', ...(strip ? { marginLeft: -1, marginTop: -1 } : {}) },
        wide && { flexGrow: 1, flexBasis: 0, minWidth: 120 },
      ]}
      buttonStyle={{
        minHeight: height,
        minWidth: iconOnly ? height : 0,
        paddingVertical: 4,
        paddingHorizontal: iconOnly ? 8 : size === 'floor' ? 20 : size === 'small' ? 10 : 14,
        borderRadius: strip ? 0 : 4,
        borderWidth: kind === 'act' ? 0 : 1,
        borderColor: strip ? surface.quiet : kind === 'danger' ? surface.refused : surface.line,
        backgroundColor: ground,
      }}
      disabledStyle={{
        backgroundColor: kind === 'act' ? surface.sunk : 'transparent',
        opacity: kind === 'act' ? 1 : 0.5,
      }}
      titleStyle={{
        color: colour,
        fontFamily: fonts.strong,
        fontSize: size === 'floor' ? 20 : size === 'small' ? 14 : 15,
        lineHeight: size === 'floor' ? 26 : 20,
      }}
      disabledTitleStyle={{ color: kind === 'act' ? surface.quiet : colour }}
    />
  );
}
