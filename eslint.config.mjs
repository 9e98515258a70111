import { defineConfig, globalIgnores } from 'eslint/config';
import next from 'eslint-config-next/core-web-vitals';
import typescript from 'eslint-config-next/typescript';

/** Imports run downwards only: each folder may use itself and those named after it. */
const floors = {
  core: [],
  painting: ['core'],
  workers: ['core', 'painting'],
  ui: ['core'],
  server: ['core', 'painting'],
  bench: ['core', 'painting', 'workers', 'ui'],
  app: ['core', 'ui', 'server', 'bench'],
};
const all = Object.keys(floors);

/** The floors of the core, from the ground up: each may use itself and those before it. */
const coreFloors = [
  'geometry',
  'raster',
  'colour',
  'edges',
  'drawing',
  'change',
  'ink',
  'flats',
  'scene',
  'assist',
  'check',
  'edits',
  'replay',
  'deliver',
  'formats',
];
const upwards = coreFloors.map((floor, i) => ({
  files: [`src/core/${floor}/**/*.ts`],
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          {
            group: [
              ...coreFloors.slice(i + 1).flatMap((f) => [`**/../${f}/**`, `@/core/${f}/**`]),
              '**/../index',
              '@/core',
            ],
            message: `src/core/${floor} may use only: ${coreFloors.slice(0, i + 1).join(', ')}`,
          },
        ],
      },
    ],
  },
}));

const oneWay = all.map((folder) => {
  const barred = all.filter((f) => f !== folder && !floors[folder].includes(f));
  const patterns = barred.flatMap((f) => [`@/${f}`, `@/${f}/**`, `**/../${f}/**`]);
  const outside =
    folder === 'core'
      ? ['react', 'react-dom', 'next', 'next/**', 'antd', 'konva', 'node:*', 'fs', 'path', 'sharp', 'nanoid']
      : [];
  return {
    files: [`src/${folder}/**/*.{ts,tsx}`],
    ignores: ['**/*.test.ts', '**/test/**'],
    rules: {
      '@typescript-eslint/no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: [...patterns, ...outside],
              message: `src/${folder} may import only: ${[folder, ...floors[folder]].join(', ')}`,
            },
          ],
        },
      ],
    },
  };
});

export default defineConfig([
  ...next,
  ...typescript,
  globalIgnores([
    '.next/**',
    '.jobs/**',
    'node_modules/**',
    'drizzle/**',
    'next-env.d.ts',
    'test-results/**',
    'data/**',
  ]),
  ...oneWay,
  ...upwards,
  {
    files: ['src/core/**/*.ts'],
    ignores: ['src/core/**/*.test.ts'],
    rules: {
      'no-restricted-globals': ['error', 'window', 'document', 'performance', 'setTimeout', 'fetch'],
      'no-restricted-syntax': [
        'error',
        {
          selector: "MemberExpression[object.name='Math'][property.name='random']",
          message: 'randomness is handed in',
        },
        { selector: "NewExpression[callee.name='Date']", message: 'there is no clock in the core' },
      ],
    },
  },
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'max-lines': ['error', { max: 300, skipBlankLines: true }],
    },
  },
]);
