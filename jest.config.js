/** Two projects: what runs under Node.js, and what React draws. */
export default {
  projects: [
    {
      displayName: 'node',
      testEnvironment: 'node',
      testMatch: ['<rootDir>/{core,contract,server,demo,bin,bench}/**/*.test.ts'],
      transform: {
        '^.+\\.(ts|mjs|js)$': [
          '@swc/jest',
          { jsc: { parser: { syntax: 'typescript' }, target: 'es2022' }, module: { type: 'es6' } },
        ],
      },
      extensionsToTreatAsEsm: ['.ts'],
      globalSetup: '<rootDir>/server/test/globalSetup.ts',
      globalTeardown: '<rootDir>/server/test/globalTeardown.ts',
    },
    '<rootDir>/app/jest.config.js',
  ],
  testTimeout: 120_000,
};
