import { join } from 'node:path';
import importX, { createNodeResolver } from 'eslint-plugin-import-x';
import tseslint from 'typescript-eslint';
import next from 'eslint-config-next';

/** What each room may import. Everything else of src/ is above it in the flow. */
const rooms = {
  core: ['core'],
  server: ['core', 'server'],
  workers: ['core', 'workers'],
  project: ['core', 'workers', 'project'],
  ui: ['core', 'project', 'ui'],
  board: ['core', 'workers', 'project', 'ui', 'board'],
  stations: ['core', 'project', 'ui', 'board', 'stations'],
  app: ['core', 'server', 'project', 'ui', 'board', 'stations', 'app'],
  cli: ['core', 'server', 'cli'],
};
const all = Object.keys(rooms);

/** The rooms of core/ in the order of the flow: each may import those before it and nothing after it. */
const coreRooms = [
  'geometry',
  'units',
  'drawing',
  'underlay',
  'placed',
  'patterns',
  'sorting',
  'kinds',
  'revision',
  'datum',
  'reading',
  'model',
  'decisions',
  'tracing',
  'resolved',
  'bodies',
  'handover',
  'cut',
  'proof',
  'structure',
  'rooms',
  'energy',
  'lighting',
  'comparison',
  'exports',
];

/** Code that core/ has to do without, so that it gives the same for the same input, wherever it runs. */
const impure = [
  { selector: "NewExpression[callee.name='Date']", message: 'core/ has no clock: take the time as a parameter.' },
  { selector: "CallExpression[callee.object.name='performance']", message: 'core/ has no clock.' },
  {
    selector: "CallExpression[callee.object.name='crypto']",
    message: 'core/ has no randomness: take ids as a parameter.',
  },
  { selector: "MemberExpression[object.name='Math'][property.name='random']", message: 'core/ has no randomness.' },
  { selector: "MemberExpression[object.name='Date'][property.name='now']", message: 'core/ has no clock.' },
];

const tests = ['**/*.test.ts', '**/*.test.tsx'];
const outside = ['node:*', 'react', 'react-dom', 'next', 'next/*', 'kysely', 'pg', 'three', '@mui/*'];

/** The patterns of imports that a room may not have. */
const forbidden = (room) => [
  {
    group: all.filter((other) => !rooms[room].includes(other)).map((other) => `@/${other}/*`),
    message: `${room}/ may import ${rooms[room].join(', ')} only.`,
  },
  {
    group: all.filter((other) => other !== room).map((other) => `**/../${other}/*`),
    message: 'Another room is imported by its @/ path.',
  },
];

const flow = all.map((room) => ({
  files: [`src/${room}/**/*.{ts,tsx}`],
  ignores: tests,
  rules: { 'no-restricted-imports': ['error', { patterns: forbidden(room) }] },
}));

const coreFlow = coreRooms.map((room, i) => ({
  files: [`src/core/${room}/**/*.ts`],
  ignores: [...tests, 'src/core/**/testing/**'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          ...forbidden('core'),
          { group: outside, message: 'core/ is pure: no Node built-ins, no React, no DOM, no database.' },
          ...(i + 1 < coreRooms.length
            ? [
                {
                  group: coreRooms.slice(i + 1).flatMap((later) => [`@/core/${later}/*`, `../${later}/*`]),
                  message: `core/${room} may import the rooms before it in the flow only (see eslint.config.mjs).`,
                },
              ]
            : []),
        ],
      },
    ],
  },
}));

const stations = ['intake', 'datum', 'sorting', 'reading', 'tracing', 'proof', 'handover'];
const stationFlow = stations.map((station) => ({
  files: [`src/stations/${station}/**`],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          {
            group: [
              ...stations
                .filter((other) => other !== station)
                .flatMap((other) => [`@/stations/${other}/*`, `../${other}/*`]),
              '@/server/*',
              '@/app/*',
              '@/cli/*',
              '@/workers/*',
            ],
            message: 'Stations do not import one another, nor the server.',
          },
        ],
      },
    ],
  },
}));

/** Lines that people can read, and functions that can be seen at a glance; strings are sentences and stay whole. */
const readable = {
  'max-len': [
    'error',
    { code: 120, ignoreStrings: true, ignoreTemplateLiterals: true, ignoreRegExpLiterals: true, ignoreUrls: true },
  ],
  'max-lines': ['error', { max: 640, skipBlankLines: true, skipComments: true }],
  'max-lines-per-function': ['error', { max: 120, skipBlankLines: true, skipComments: true }],
  'no-nested-ternary': 'error',
};

/** Rules of React, some of which compile what they look at, are asked where React is. */
const react = next.map((part) =>
  part.files === undefined ? part : { ...part, files: ['src/{app,board,project,stations,ui}/**/*.{ts,tsx}'] },
);

const config = [
  { ignores: ['.next/**', '.build/**', 'node_modules/**', '.zircon/**', 'next-env.d.ts'] },
  ...react,
  ...tseslint.configs.recommended,
  {
    plugins: { 'import-x': importX },
    settings: {
      'import-x/parsers': { '@typescript-eslint/parser': ['.ts', '.tsx'] },
      'import-x/extensions': ['.ts', '.tsx'],
      'import-x/resolver-next': [
        createNodeResolver({
          extensions: ['.ts', '.tsx', '.mjs', '.js'],
          alias: { '@': [join(import.meta.dirname, 'src')] },
        }),
      ],
    },
    rules: {
      ...readable,
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true },
      ],
    },
  },
  // A component is one function with all it shows in it; what it computes stands outside.
  {
    files: ['**/*.tsx'],
    rules: { 'max-lines-per-function': ['error', { max: 280, skipBlankLines: true, skipComments: true }] },
  },
  // Drawn plans, migrations and tests are lists of things, one after another.
  {
    files: [...tests, 'e2e/**', 'bench/**', 'demo/**', 'src/server/database/migrations/**', 'src/cli/screenshots.ts'],
    rules: { 'max-lines-per-function': 'off', 'max-lines': 'off' },
  },
  ...flow,
  ...coreFlow,
  ...stationFlow,
  // Within a room files do not import one another in a ring either.
  { files: ['src/**/*.{ts,tsx}'], rules: { 'import-x/no-cycle': ['error', { ignoreExternal: true }] } },
  {
    files: ['src/core/**/*.ts'],
    ignores: tests,
    rules: {
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'fetch', 'localStorage'],
      'no-restricted-syntax': ['error', ...impure],
    },
  },
];

export default config;
