import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';

// What readings find out is shared by the tests of one run, and by no others.
if (process.env.YOKELINE_READING_CACHE === undefined) {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-readings-'));
  process.env.YOKELINE_READING_CACHE = folder;
  process.on('exit', () => fs.rmSync(folder, { recursive: true, force: true }));
}

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
  setupFilesAfterEnv: ['<rootDir>/src/test-support/remembered-readings.ts'],
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
