const swc = (react) => [
  '@swc/jest',
  {
    jsc: {
      parser: { syntax: 'typescript', tsx: react },
      target: 'es2022',
      transform: { react: { runtime: 'automatic' } },
    },
    module: { type: 'commonjs' },
  },
];
// These packages ship as ES modules only.
const modules = [
  'flatbush',
  'flatqueue',
  'd3',
  'd3-.*',
  'internmap',
  'delaunator',
  'robust-predicates',
  'kysely',
  'rbush',
  'quickselect',
];
const common = {
  transform: { '\\.tsx$': swc(true), '\\.(ts|mjs|js)$': swc(false) },
  transformIgnorePatterns: [`/node_modules/(?!(${modules.join('|')})/)`],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
  testEnvironment: 'node',
};

const config = {
  projects: [
    {
      ...common,
      displayName: 'unit',
      // On a busy machine the first test of a file waits for its modules for seconds.
      testTimeout: 30_000,
      testMatch: [
        '<rootDir>/src/**/*.test.ts',
        '<rootDir>/src/**/*.test.tsx',
        '<rootDir>/demo/**/*.test.ts',
        '<rootDir>/bench/**/*.test.ts',
      ],
    },
    {
      ...common,
      displayName: 'e2e',
      // Long enough for a machine that stands still for a while; what a test waits for are states.
      testTimeout: 240_000,
      testMatch: ['<rootDir>/e2e/**/*.test.ts'],
    },
  ],
};

export default config;
