import { Image, type ImageStyle } from 'react-native';

/**
 * A picture that says something, with the words for it.
 *
 * The web's Image puts the words on the frame and on the picture inside; a frame without a role may not bear any, and
 * as a picture it would be read out twice. As a group it holds the one picture.
 */
export function Illustration({ uri, words, style }: { uri: string; words: string; style: ImageStyle }) {
  return (
    <Image
      role="group"
      source={{ uri }}
      aria-label={words}
      resizeMode="contain"
      style={[{ backgroundColor: '#FFFFFF' }, style]}
    />
  );
}
