// Readings begin without what others remember: tests that are about that name a folder.
process.env.YOKELINE_READING_CACHE ??= 'off';

export default {
  testEnvironment: 'node',
  roots: ['<rootDir>/src'],
  // The limit is against hanging, not against slowness: how fast things are is measured elsewhere.
  testTimeout: 300_000,
  // One for each core: by itself it leaves one free, of two.
  maxWorkers: '100%',
  // Compilers that are published as modules only: Jest can’t require these on the Node.js versions in use.
  globalSetup: '<rootDir>/src/test-support/compilers-for-jest.mjs',
  moduleNameMapper: { '^@angular/compiler$': '<rootDir>/node_modules/.cache/yokeline/angular-compiler.cjs' },
  testMatch: ['**/*.test.ts'],
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: {
    '^.+\\.tsx?$': [
      '@swc/jest',
      {
        jsc: {
          target: 'es2022',
          parser: { syntax: 'typescript', tsx: false, decorators: true },
          transform: { legacyDecorator: true, decoratorMetadata: true },
        },
        module: { type: 'es6' },
      },
    ],
  },
};
