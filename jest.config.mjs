/** ES modules, ours and three of others', are taken as CommonJS by swc, so that no build and no flag is needed. */
export default {
  testMatch: ['<rootDir>/packages/*/src/**/*.test.ts', '<rootDir>/apps/*/src/**/*.test.ts', '<rootDir>/apps/*/test/**/*.test.ts'],
  testEnvironment: 'node',
  testTimeout: 60000,
  // Each core one: by itself it leaves one of two idle.
  maxWorkers: '100%',
  transform: {
    '^.+\\.(ts|m?js)$': [
      '@swc/jest',
      {
        jsc: {
          target: 'es2023',
          parser: { syntax: 'typescript', decorators: true },
          transform: { legacyDecorator: true, decoratorMetadata: true, useDefineForClassFields: false },
        },
        module: { type: 'commonjs' },
        swcrc: false,
      },
    ],
  },
  transformIgnorePatterns: ['/node_modules/(?!(parse5|entities|any-ascii|marked|culori|srcset|@noble/hashes|@exodus/bytes)/)'],
  moduleNameMapper: {
    '^@waybell/core$': '<rootDir>/packages/core/src/index.ts',
    '^@waybell/core/schema$': '<rootDir>/packages/core/src/schema.ts',
    '^@waybell/core/survey$': '<rootDir>/packages/core/src/survey/index.ts',
    '^@waybell/core/contract$': '<rootDir>/packages/core/src/contract/index.ts',
    '^@waybell/core/rule$': '<rootDir>/packages/core/src/highlight/rule.ts',
    '^@waybell/agent/schema$': '<rootDir>/packages/agent/src/schema.ts',
    '^@waybell/(runtime|agent)$': '<rootDir>/packages/$1/src/text.ts',
  },
}
