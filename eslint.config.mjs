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

const flow = all.map((room) => ({
  files: [`src/${room}/**/*.{ts,tsx}`],
  ignores: ['**/*.test.ts', '**/*.test.tsx'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          {
            group: all.filter((other) => !rooms[room].includes(other)).map((other) => `@/${other}/*`),
            message: `${room}/ may import ${rooms[room].join(', ')} only.`,
          },
          {
            group: all.filter((other) => other !== room).map((other) => `**/../${other}/*`),
            message: 'Another room is imported by its @/ path.',
          },
          ...(room === 'core'
            ? [
                {
                  group: ['node:*', 'react', 'react-dom', 'next', 'next/*', 'kysely', 'pg', 'three', '@mui/*'],
                  message: 'core/ is pure: no Node built-ins, no React, no DOM, no database.',
                },
              ]
            : []),
        ],
      },
    ],
  },
}));

const stations = ['intake', 'datum', 'sorting', 'reading', 'handover'];

const config = [
  { ignores: ['.next/**', '.build/**', 'node_modules/**', '.zircon/**', 'next-env.d.ts'] },
  ...next,
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true },
      ],
    },
  },
  ...flow,
  ...stations.map((station) => ({
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
  })),
  {
    files: ['src/core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'fetch', 'localStorage'],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random' },
        { object: 'Date', property: 'now' },
      ],
    },
  },
];

export default config;
