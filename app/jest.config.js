module.exports = {
  displayName: 'app',
  preset: 'jest-expo',
  testMatch: ['<rootDir>/**/*.test.{ts,tsx}'],
  transformIgnorePatterns: [
    '/node_modules/(?!((jest-)?react-native|@react-native(-community)?|expo(nent)?|@expo(nent)?/.*|@expo-google-fonts/.*|react-navigation|@react-navigation/.*|@rneui/.*|react-native-svg|@hand-relay|immer|@reduxjs|react-redux|reselect|@tanstack)/?)',
  ],
};
