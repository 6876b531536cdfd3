const transform = {
  '^.+\\.(t|j|mj)sx?$': [
    '@swc/jest',
    {
      jsc: {
        parser: { syntax: 'typescript', tsx: true },
        target: 'es2022',
        transform: { react: { runtime: 'automatic' } },
      },
      module: { type: 'commonjs' },
    },
  ],
};
const shared = {
  testEnvironment: 'node',
  // What a test file leaves behind is deleted "softly" otherwise: a connection that still closes then sets itself without end.
  testEnvironmentOptions: { globalsCleanup: 'off' },
  setupFiles: ['<rootDir>/tests/support/seed.ts'],
  transform,
  transformIgnorePatterns: [
    '/node_modules/(?!(libphonenumber-js|uuid|yaml|ical.js|@sindresorhus|otplib|@otplib|@scure|@noble|httpxy|srvx|mpg123-decoder|@wasm-audio-decoders|simple-yenc|@eshaz)/)',
  ],
  // The package's CommonJS face lacks part of what its ESM face exports.
  moduleNameMapper: {
    '^libphonenumber-js/max$': '<rootDir>/node_modules/libphonenumber-js/max/index.js',
    '^@/(.*)$': '<rootDir>/src/$1',
    ...(process.env.POLYDROME_SOAK ? { '^fast-check$': '<rootDir>/tests/support/soaking.cjs' } : {}),
  },
  modulePathIgnorePatterns: ['<rootDir>/.next', '<rootDir>/.build'],
};

const config = {
  testSequencer: '<rootDir>/tests/support/order.mjs',
  // A slow machine proves nothing wrong; what hangs ends all the same.
  testTimeout: 90_000,
  projects: [
    {
      ...shared,
      displayName: 'unit',
      testMatch: ['<rootDir>/src/**/*.test.ts', '<rootDir>/bin/**/*.test.ts', '<rootDir>/demo/**/*.test.ts'],
    },
    {
      ...shared,
      setupFiles: ['<rootDir>/tests/support/own-application.ts', ...shared.setupFiles],
      displayName: 'system',
      testMatch: ['<rootDir>/tests/**/*.test.ts'],
    },
  ],
};

export default config;
