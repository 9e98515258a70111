/** @type {import('jest').Config} */
const config = {
  testEnvironment: 'node',
  // A busy machine is slow, not wrong.
  testTimeout: 60_000,
  // By itself it leaves a core free, which on two cores is half of them.
  maxWorkers: '100%',
  roots: ['<rootDir>/src', '<rootDir>/demo', '<rootDir>/scripts'],
  setupFiles: ['<rootDir>/jest.setup.ts'],
  // Globals are slow to reach from within a test's own context; these are handed in.
  sandboxInjectedGlobals: ['Math', 'Infinity', 'Number', 'Float64Array', 'Float32Array', 'Uint8Array'],
  testMatch: ['**/*.test.ts', '**/*.test.tsx', '**/*.test.mjs'],
  moduleNameMapper: {
    '^@/(.*)$': '<rootDir>/src/$1',
    '^(antd|@ant-design/icons|echarts)(/.*)?$': '<rootDir>/src/ui/components.stub.js',
    // Its parts call something of theirs Number, which is handed in here; in the one file it is out of the way.
    '^css-tree$': '<rootDir>/node_modules/css-tree/dist/csstree.esm.js',
    '\\.css$': '<rootDir>/src/ui/style.stub.ts',
  },
  transform: {
    '^.+\\.(t|j|mj)sx?$': [
      '@swc/jest',
      {
        jsc: {
          target: 'es2022',
          parser: { syntax: 'typescript', tsx: true },
          transform: { react: { runtime: 'automatic' } },
        },
      },
    ],
  },
  transformIgnorePatterns: [
    '/node_modules/(?!(nanoid|culori|css-tree|mdn-data|rbush|quickselect|pure-rand|simplex-noise|comlink|idb|flatbush|flatqueue)/)',
  ],
};
export default config;
