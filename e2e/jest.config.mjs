import base from '../jest.config.mjs';

export default {
  ...base,
  rootDir: '..',
  roots: ['<rootDir>/e2e'],
  testTimeout: 900_000,
  maxWorkers: 1,
  forceExit: true,
};
