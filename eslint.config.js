import eslint from '@eslint/js';
import globals from 'globals';
import vue from 'eslint-plugin-vue';
import tseslint from 'typescript-eslint';
import { offTheThread } from './apps/server/on-the-thread.mjs';

/** Imports run one way: web and server to contract to core; core knows nothing of the world. */
const forbid = (message, ...patterns) => ['error', { patterns: [{ group: patterns, message }] }];

/** The folders of the page, each with those it may import from. */
const PAGE = {
  kit: [],
  api: [],
  data: ['api'],
  list: ['kit', 'api', 'data'],
  session: ['kit', 'api'],
  act: ['api', 'data', 'session'],
  places: ['kit', 'api', 'data', 'act'],
  citing: ['kit', 'api', 'act'],
  sources: ['kit', 'api', 'data', 'list', 'session', 'act', 'places', 'citing'],
  gather: ['kit', 'api', 'data', 'list', 'session', 'act', 'places', 'citing', 'sources'],
  check: ['kit', 'api', 'data', 'session', 'act', 'places', 'citing', 'sources'],
  read: ['kit', 'api', 'data', 'session', 'act', 'citing', 'sources'],
  notes: ['kit', 'api', 'data', 'session', 'act', 'citing', 'sources'],
};
const STAGES = ['sources', 'gather', 'check', 'read', 'notes'];

/** A folder of the server, or a file beside them, as it is imported from a folder. */
const inFolder = (name) =>
  name.endsWith('.ts') ? [`../${name}`, `../../${name}`] : [`../${name}/**`, `../../${name}/**`];

/**
 * The folders of the server, and two files beside them, in their order: each may import from those before it, and from none
 * after it. `composition` puts them together.
 */
const SERVER = [
  // What the server stands on.
  ...[
    'database',
    'news',
    'storage',
    'fetching',
    'mail',
    'access',
    'subjects',
    'workers',
    'columns',
    'queue',
    'indexing',
  ],
  // What every capability is given, and the records all of them speak of.
  ...['services.ts', 'records', 'http'],
  // What capabilities are made with.
  ...['capability.ts', 'changes', 'lists', 'searching'],
  // The capabilities.
  ...[
    'own',
    'assessments',
    'files',
    'marks',
    'glosses',
    'saved',
    'relations',
    'places',
    'tags',
    'headings',
    'notes',
    'sources',
    'citing',
    'check',
  ],
  ...['catalogues', 'gathering', 'intake', 'outside', 'reference-lists', 'jobs', 'live', 'accounts'],
  'composition',
];
const OFF_THE_PAGE = [
  'node:*',
  'fastify*',
  'drizzle*',
  'pg',
  '@pandecta/server*',
  '@pandecta/debian*',
  '@pandecta/demo*',
];

const OFF_THE_SERVER = ['vue*', '@pandecta/web*', '@pandecta/demo*', '@pandecta/cli*'];
const BEYOND = {
  selector: "ImportSpecifier[imported.name='beyond']",
  message: 'accounts alone belong to no workspace: all else is reached by `within`',
};
/** What runs in workers, and tests. */
const OFF_THE_THREAD = ['**/*.test.ts', 'apps/server/src/{testing,workers}/**'];

/** What writes numbers, dates and times beside the one place for it. */
const LOCALE = {
  selector: 'MemberExpression[property.name=/^toLocale(Date|Time)?String$/]',
  message: 'core/wording writes numbers, dates and times',
};

export default tseslint.config(
  { ignores: ['dist', 'node_modules', '**/migrations', '**/*.d.ts'] },
  eslint.configs.recommended,
  ...tseslint.configs.recommended,
  ...vue.configs['flat/recommended'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: tseslint.parser }, globals: globals.browser } },
  { files: ['scripts/**', 'eslint.config.js'], languageOptions: { globals: globals.node } },
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-unused-expressions': ['error', { allowTernary: true, allowShortCircuit: true }],
      'no-undef': 'off',
      // Readers meet control characters, and say so in patterns.
      'no-control-regex': 'off',
      'no-sequences': 'off',
      'max-lines': ['error', { max: 450, skipBlankLines: true, skipComments: true }],
      // Prettier lays out; these would argue with it.
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/first-attribute-linebreak': 'off',
      'vue/attributes-order': 'off',
      'vue/require-default-prop': 'off',
    },
  },
  {
    // By types: what is promised is waited for, and every case of a union has its branch.
    files: ['{apps,packages}/*/src/**/*.ts'],
    ignores: ['**/*.test.ts', '**/testing/**'],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': 'error',
      '@typescript-eslint/await-thenable': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
    },
  },
  {
    // How numbers, dates and times are written is said in one place.
    files: ['{apps,packages}/*/src/**/*.{ts,vue}'],
    ignores: ['**/*.test.ts', 'packages/core/src/wording/**'],
    rules: {
      'no-restricted-syntax': ['error', LOCALE],
    },
  },
  {
    files: ['apps/clipper/**'],
    rules: {
      'no-restricted-imports': forbid(
        'the clipper knows what server and page say to each other, and core',
        ...OFF_THE_PAGE,
        'vue*',
      ),
    },
  },
  {
    files: ['packages/core/src/**'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': forbid(
        'core computes: no I/O, no interface, no other part of Pandecta',
        'node:*',
        'fs',
        'path',
        'vue*',
        'fastify*',
        'drizzle*',
        'pg',
        '@pandecta/*',
        '**/testing/index.ts',
      ),
      'no-restricted-globals': ['error', 'fetch', 'document', 'window', 'process', 'setTimeout'],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random' },
        { object: 'Date', property: 'now' },
      ],
    },
  },
  {
    files: ['packages/contract/src/**'],
    rules: {
      'no-restricted-imports': forbid(
        'the contract knows core alone',
        'node:*',
        'vue*',
        'fastify*',
        'drizzle*',
        'pg',
        '@pandecta/server*',
        '@pandecta/web*',
        '@pandecta/debian*',
      ),
    },
  },
  {
    files: ['apps/web/src/*.ts', 'apps/web/src/app/**'],
    rules: { 'no-restricted-imports': forbid('the page knows the contract and core', ...OFF_THE_PAGE) },
  },
  ...Object.entries(PAGE).map(([folder, below]) => ({
    files: [`apps/web/src/${folder}/**`],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            { group: OFF_THE_PAGE, message: 'the page knows the contract and core' },
            {
              group: [
                ...Object.keys(PAGE).flatMap((f) =>
                  f === folder || below.includes(f) ? [] : [`../${f}/**`, `../../${f}/**`],
                ),
                // Of a stage others take what its index gives.
                ...STAGES.flatMap((f) => (f === folder ? [] : [`../${f}/*`, `!../${f}/index.ts`])),
              ],
              message: `${folder}/ knows ${below.join(', ') || 'nothing of the page'}, and of stages what their index.ts gives`,
            },
          ],
        },
      ],
    },
  })),
  {
    files: ['apps/web/src/**/*.vue'],
    ignores: ['apps/web/src/kit/**'],
    rules: {
      'vue/no-restricted-html-elements': [
        'error',
        ...['button', 'input', 'select', 'textarea', 'dialog', 'progress', 'table'].map((element) => ({
          element,
          message: 'the kit has a component for it',
        })),
      ],
    },
  },
  {
    files: ['apps/server/src/**'],
    rules: {
      'no-restricted-imports': forbid('the server knows contract, core and what Debian brings', ...OFF_THE_SERVER),
    },
  },
  ...SERVER.map((folder, place) => ({
    files: [`apps/server/src/${folder.endsWith('.ts') ? folder : `${folder}/**`}`],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            { group: OFF_THE_SERVER, message: 'the server knows contract, core and what Debian brings' },
            {
              group: [...SERVER.slice(place + 1), 'testing'].flatMap((f) =>
                folder.endsWith('.ts') ? [`./${f}/**`] : inFolder(f),
              ),
              message: `${folder} comes before it in the order of folders (SERVER in eslint.config.js)`,
            },
          ],
        },
      ],
    },
  })),
  ...[
    { ignores: ['apps/server/src/{access,accounts,database}/**'], refused: [BEYOND] },
    { ignores: OFF_THE_THREAD, refused: offTheThread },
    {
      ignores: ['apps/server/src/{access,accounts,database}/**', ...OFF_THE_THREAD],
      refused: [BEYOND, ...offTheThread],
    },
  ].map(({ ignores, refused }) => ({
    files: ['apps/server/src/**'],
    ignores,
    rules: { 'no-restricted-syntax': ['error', LOCALE, ...refused] },
  })),
  {
    files: ['apps/cli/src/**'],
    rules: {
      'no-restricted-imports': forbid(
        'the command line works without a server',
        'vue*',
        'fastify*',
        '@pandecta/server*',
        '@pandecta/contract*',
      ),
    },
  },
);
