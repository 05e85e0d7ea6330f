const shared = {
  transform: {
    '^.+\\.(t|j)sx?$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', tsx: true },
          target: 'es2022',
          transform: { react: { runtime: 'automatic' } },
        },
        module: { type: 'es6' },
      },
    ],
  },
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  testEnvironment: 'node',
  setupFilesAfterEnv: ['<rootDir>/scripts/setup/jest-patience.mjs'],
};

/** @type {import('jest').Config} */
export default {
  projects: [
    {
      ...shared,
      displayName: 'unit',
      testMatch: [
        '<rootDir>/{core,contract,standins,demo,web}/src/**/*.test.ts',
        '<rootDir>/scripts/**/*.test.ts',
      ],
    },
    {
      ...shared,
      displayName: 'screens',
      testMatch: ['<rootDir>/web/src/**/*.test.tsx'],
      testEnvironment: '<rootDir>/scripts/setup/jest-dom.mjs',
      moduleNameMapper: { '\\.css$': '<rootDir>/scripts/setup/no-style.mjs' },
    },
    {
      ...shared,
      displayName: 'db',
      testMatch: ['<rootDir>/server/src/**/*.test.ts'],
      globalSetup: '<rootDir>/scripts/setup/jest-database.mjs',
      globalTeardown: '<rootDir>/scripts/setup/jest-database-stop.mjs',
    },
    {
      ...shared,
      // apart: only when it is asked for
      displayName: 'cluster',
      testMatch: ['<rootDir>/scripts/**/*.apart.ts'],
    },
    {
      ...shared,
      displayName: 'browser',
      testMatch: ['<rootDir>/e2e/src/**/*.test.ts'],
      globalSetup: '<rootDir>/scripts/setup/jest-database.mjs',
      globalTeardown: '<rootDir>/scripts/setup/jest-database-stop.mjs',
    },
  ],
};
