const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);

// The barcode reader ships with the app.
config.resolver.assetExts.push('wasm');

// React Native Elements names the icon packages of old; icons of the one set we use come from @expo/vector-icons, the
// others would only add fonts that nobody sees.
const set = 'react-native-vector-icons';
const previous = config.resolver.resolveRequest;
config.resolver.resolveRequest = (context, name, platform) => {
  const resolve = previous ?? context.resolveRequest;
  const icons = name.match(new RegExp(`^(?:@${set}|${set})/(.+)$`));
  if (!icons) return resolve(context, name, platform);
  if (/material-design-icons|MaterialCommunityIcons/.test(icons[1]))
    return resolve(context, '@expo/vector-icons/MaterialCommunityIcons', platform);
  return { type: 'sourceFile', filePath: require.resolve('./ui/noIcon.tsx') };
};

module.exports = config;
