import Input from '@rneui/themed/dist/Input';
import type { Ref } from 'react';
import type { TextInput } from 'react-native';
import { fonts, useSurface } from './theme.ts';

export interface FieldProps {
  label: string;
  value: string;
  onChange: (text: string) => void;
  onSubmit?: () => void;
  error?: string | undefined;
  secret?: boolean;
  numeric?: boolean;
  placeholder?: string;
  focus?: boolean;
  hint?: string;
  /** The label is read and not shown. */
  bare?: boolean;
  size?: 'desk' | 'floor';
  complete?: 'username' | 'current-password' | 'off';
  inputRef?: Ref<TextInput>;
  onFocus?: () => void;
}

/** A field with its label above and what is wrong below. */
export function Field({
  label,
  value,
  onChange,
  onSubmit,
  error,
  secret,
  numeric,
  placeholder,
  focus,
  bare,
  size = 'desk',
  complete = 'off',
  inputRef,
  onFocus,
}: FieldProps) {
  const surface = useSurface();
  return (
    <Input
      {...(inputRef ? { ref: inputRef as never } : {})}
      {...(bare ? {} : { label })}
      aria-label={label}
      aria-invalid={Boolean(error)}
      value={value}
      onChangeText={onChange}
      {...(onSubmit ? { onSubmitEditing: onSubmit } : {})}
      {...(onFocus ? { onFocus } : {})}
      {...(placeholder ? { placeholder } : {})}
      placeholderTextColor={surface.quiet}
      secureTextEntry={Boolean(secret)}
      autoFocus={Boolean(focus)}
      autoComplete={complete}
      autoCapitalize="none"
      autoCorrect={false}
      inputMode={numeric ? 'numeric' : 'text'}
      submitBehavior="submit"
      errorMessage={error ?? ''}
      errorProps={error ? { role: 'alert' } : {}}
      renderErrorMessage={Boolean(error)}
      errorStyle={{ color: surface.refused, fontFamily: fonts.medium, fontSize: 14, margin: 0, marginTop: 4 }}
      labelStyle={{
        color: surface.quiet,
        fontFamily: fonts.medium,
        fontSize: 14,
        fontWeight: 'normal',
        marginBottom: 4,
      }}
      containerStyle={{ paddingHorizontal: 0 }}
      inputContainerStyle={{
        borderWidth: 1,
        borderBottomWidth: 1,
        borderColor: error ? surface.refused : surface.quiet,
        borderRadius: 4,
        backgroundColor: surface.raised,
        minHeight: size === 'floor' ? 60 : 42,
      }}
      inputStyle={{
        color: surface.ink,
        fontFamily: fonts.text,
        fontSize: size === 'floor' ? 22 : 16,
        paddingHorizontal: 12,
        // A browser's field is as wide as twenty letters otherwise, however narrow its box.
        minWidth: 0,
        minHeight: size === 'floor' ? 58 : 40,
      }}
    />
  );
}
