const swc = (react) => [
  '<rootDir>/jest.transform.mjs',
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
  'polyclip-ts',
  'splaytree-ts',
  'quickselect',
  'earcut',
  'unpdf',
];
const common = {
  transform: { '\\.tsx$': swc(true), '\\.(ts|mjs|js)$': swc(false) },
  transformIgnorePatterns: [`/node_modules/(?!(${modules.join('|')})/)`],
  moduleNameMapper: {
    '^@/(.*)$': '<rootDir>/src/$1',
    // Its other form loads a part of itself in a way that tests cannot.
    '^unpdf$': '<rootDir>/node_modules/unpdf/dist/index.mjs',
    '^unpdf/pdfjs$': '<rootDir>/node_modules/unpdf/dist/pdfjs.mjs',
  },
  testEnvironment: 'node',
};

const config = {
  // Long enough for a machine that stands still for a while; what tests wait for are states.
  testTimeout: 240_000,
  projects: [
    {
      ...common,
      displayName: 'unit',
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
      testEnvironment: '<rootDir>/e2e/environment.ts',
      testMatch: ['<rootDir>/e2e/**/*.test.ts'],
      setupFilesAfterEnv: ['<rootDir>/e2e/setup.ts'],
    },
  ],
};

export default config;
