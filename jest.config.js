const swc = {
  jsc: {
    target: 'es2022',
    parser: { syntax: 'typescript', decorators: true, tsx: true },
    transform: { legacyDecorator: true, decoratorMetadata: true, useDefineForClassFields: false },
    keepClassNames: true,
  },
  module: { type: 'es6' },
};

/** ES modules as they are; needs NODE_OPTIONS=--experimental-vm-modules. */
const base = {
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: { '^.+\\.[jt]sx?$': ['@swc/jest', swc] },
  // CommonJS packages that require ES modules.
  transformIgnorePatterns: ['/node_modules/(?!(cookie|content-disposition)/)'],
  testEnvironment: 'node',
  setupFiles: ['<rootDir>/scripts/property-seed.mjs'],
};

export default {
  // A worker that has grown begins anew: what it collects of so much memory would hold up what it tests.
  workerIdleMemoryLimit: '1GB',
  projects: [
    {
      ...base,
      displayName: 'unit',
      roots: ['<rootDir>/packages', '<rootDir>/apps/server/src', '<rootDir>/apps/web/src', '<rootDir>/demo'],
      testMatch: ['**/*.test.ts'],
    },
    {
      ...base,
      displayName: 'web',
      roots: ['<rootDir>/apps/web/src'],
      testMatch: ['**/*.test.tsx'],
      testEnvironment: 'jsdom',
      setupFiles: [...base.setupFiles, '<rootDir>/scripts/browser-globals.mjs'],
      transform: {
        '^.+\\.[jt]sx?$': [
          '@swc/jest',
          { ...swc, jsc: { ...swc.jsc, transform: { ...swc.jsc.transform, react: { runtime: 'automatic' } } } },
        ],
      },
    },
    {
      ...base,
      displayName: 'server',
      roots: ['<rootDir>/apps/server/test'],
      testMatch: ['**/*.test.ts'],
      globalSetup: '<rootDir>/apps/server/test/support/global-setup.mjs',
      globalTeardown: '<rootDir>/apps/server/test/support/global-teardown.mjs',
    },
  ],
};
