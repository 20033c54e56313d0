const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);

// The barcode reader ships with the app.
config.resolver.assetExts.push('wasm');

// React Native Elements names the icon packages of old. Our icons are paths (ui/Icon.tsx): its own would only add fonts
// that nobody sees.
const set = 'react-native-vector-icons';
const unused = /\/(locales\/index|compile|from-json-schema|json-schema-generator|json-schema-processors)\.js$/;
const previous = config.resolver.resolveRequest;
config.resolver.resolveRequest = (context, name, platform) => {
  const resolve = previous ?? context.resolveRequest;
  // The app words what is wrong by itself: the forty languages of the schema library would be a tenth of the app.
  // Neither does it make JSON Schema of its schemas, nor code: the server does, for the description of the API.
  if (unused.test(name) && /[\\/]zod[\\/]/.test(context.originModulePath)) return { type: 'empty' };
  return new RegExp(`^(?:@${set}|${set})/`).test(name)
    ? { type: 'sourceFile', filePath: require.resolve('./ui/noIcon.tsx') }
    : resolve(context, name, platform);
};

module.exports = config;
