import { readFileSync } from 'node:fs';
import js from '@eslint/js';
import importX from 'eslint-plugin-import-x';
import { createTypeScriptImportResolver } from 'eslint-import-resolver-typescript';
import a11y from 'eslint-plugin-jsx-a11y';
import hooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import ts from 'typescript-eslint';

/** Imports run one way: core imports nothing of the rest; store, keeping and grooves import core; screens import them, ui and core. */
const zone = (target, from, message) => ({ target, from, message });
const ROOMS = ['src', 'server', 'cli', 'demo', 'e2e', 'bench'];
const SCREENS = ['frame', 'pattern', 'feel', 'grooves', 'song', 'export', 'beats', 'kit'];

/** What is there, how it is kept, and the shelf of grooves: each may use those before it. */
const STATE = ['store', 'keeping', 'grooves'];

/** The rooms of core, in their order: each may use those before it, and none after it. */
const CORE = JSON.parse(readFileSync(new URL('./core/rooms.json', import.meta.url), 'utf8'));

const zones = [
  ...CORE.flatMap((room, at) =>
    CORE.slice(at + 1).map((later) =>
      zone(
        `./core/${room}/**/!(*.test|*.mock).ts`,
        `./core/${later}`,
        `core/${later} comes after core/${room}`,
      ),
    ),
  ),
  ...ROOMS.map((room) => zone('./core/**/!(*.test).ts', `./${room}`, 'core imports nothing of the rest')),
  ...STATE.flatMap((room, at) =>
    ['app', 'screens', 'strings', 'ui', 'audio', 'workers', ...STATE.slice(at + 1)].map((later) =>
      zone(`./src/${room}/**/!(*.test|*.mock).{ts,tsx}`, `./src/${later}`, `${later} comes after ${room}`),
    ),
  ),
  ...['app', 'screens'].map((room) =>
    zone('./src/strings', `./src/${room}`, 'the strings know nothing of the screens that show them'),
  ),
  ...['app', 'screens', 'strings', ...STATE, 'audio', 'workers'].map((room) =>
    zone('./src/ui', `./src/${room}`, 'ui knows nothing of what it shows'),
  ),
  ...['app', 'screens', 'ui', ...STATE].map((room) =>
    zone('./src/audio', `./src/${room}`, 'the audio side knows neither store nor screens'),
  ),
  ...['src', 'cli', 'demo'].map((room) => zone('./server', `./${room}`, 'the server serves what is built')),
  ...['src', 'server'].map((room) => zone('./cli', `./${room}`, 'the command line stands on core')),
  ...SCREENS.flatMap((screen) =>
    SCREENS.filter((other) => other !== screen).map((other) =>
      zone(`./src/screens/${screen}`, `./src/screens/${other}`, 'nothing imports from a sibling screen'),
    ),
  ),
];

const NO_PAGE = 'Parts know no page: this belongs in a .web file beside it.';
const PAGE = [
  { selector: 'TSTypeReference[typeName.name=/^HTML.*Element$/]', message: NO_PAGE },
  { selector: 'MemberExpression[property.name=/^(querySelector|getElement|closest)/]', message: NO_PAGE },
  { selector: 'Identifier[name=/^(document|window|localStorage)$/]', message: NO_PAGE },
];
const HTML = [
  {
    selector: 'JSXOpeningElement > JSXIdentifier[name=/^(?!title$)[a-z]/]',
    message: 'HTML stands in src/strings and src/web only: use a part of src/ui or of React Native.',
  },
  {
    selector: "JSXAttribute[name.name='className']",
    message: 'Classes of style sheets stand in src/strings and src/web only: use StyleSheet.',
  },
  {
    selector: "ImportDeclaration[source.value=/\\.css$/]:not([source.value='../web/theme.css'])",
    message: 'Style sheets stand in src/strings and src/web only: use StyleSheet.',
  },
];

/** What is read or heard stands in src/words, so that it can be read over, and said in another language. */
const LIT = '[value=/[A-Za-z]{2}/]';
const SPOKEN =
  'JSXAttribute[name.name=/^(label|title|hint|placeholder|aria-label|accessibilityLabel|under)$/]';
const TEXTS = [
  `JSXText${LIT}`,
  `${SPOKEN} > Literal${LIT}`,
  `${SPOKEN} TemplateElement[value.raw=/[A-Za-z]{3}/]`,
  `JSXElement > JSXExpressionContainer > TemplateLiteral > TemplateElement[value.raw=/[A-Za-z]{3}/]`,
  `JSXElement > JSXExpressionContainer > ConditionalExpression > Literal${LIT}`,
  `Property[key.name=/^(text|title|hint)$/] > Literal[value=/^[A-Z][a-z]+/]`,
  `CallExpression[callee.name=/^(say|tell|refuse)$/] > Literal[value=/[A-Za-z] [a-z]/]`,
].map((selector) => ({ selector, message: 'Texts stand in src/words, one list for each screen.' }));

export default ts.config(
  { ignores: ['dist', 'node_modules', '.expo', 'public', 'test-results'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...ts.configs.recommendedTypeCheckedOnly.map((config) => ({ ...config, files: ['**/*.{ts,tsx}'] })),
  {
    files: ['**/*.{ts,tsx}'],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    plugins: { 'import-x': importX },
    settings: {
      'import-x/resolver-next': [
        createTypeScriptImportResolver({
          extensions: ['.web.tsx', '.web.ts', '.tsx', '.ts', '.mjs', '.js', '.json'],
        }),
      ],
    },
    rules: {
      // What it takes for unnecessary is at times what a literal's type hangs on.
      '@typescript-eslint/no-unnecessary-type-assertion': 'off',
      // Parts are plain objects of functions here: none of them knows a `this`.
      '@typescript-eslint/unbound-method': 'off',
      'import-x/no-restricted-paths': ['error', { zones }],
      'import-x/no-cycle': 'error',
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-require-imports': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
    },
  },
  {
    // Each file is compiled for these: where nothing is of React there is nothing to find.
    files: ['src/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: hooks.configs.recommended.rules,
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: ['react*', 'expo', 'expo-*', 'expo/*', '@rneui/*', 'node:*', 'fs', 'path'] },
      ],
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'localStorage', 'performance'],
      'no-restricted-properties': [
        'error',
        {
          object: 'Math',
          property: 'random',
          message: 'The random source is passed in, or drawn by core/random/draw.',
        },
        { object: 'Date', property: 'now', message: 'The clock is passed in.' },
      ],
    },
  },
  {
    // The interface is React Native's: HTML, its classes and the page itself stand in these places only, where React Native
    // has nothing like it. Workers and sound are the browser's own, and draw nothing.
    files: ['src/**/*.{ts,tsx}'],
    ignores: [
      'src/strings/**',
      'src/web/**',
      'src/app/+html.tsx',
      'src/**/*.test.{ts,tsx}',
      'src/**/*.mock.{ts,tsx}',
    ],
    rules: {
      'no-restricted-syntax': ['error', ...HTML, ...TEXTS],
    },
  },
  {
    files: ['src/screens/**/*.tsx', 'src/strings/**/*.tsx', 'src/ui/**/*.tsx'],
    // The frame ties the store to the page; tests set it up.
    ignores: ['src/screens/frame/Frame.tsx', 'src/**/*.test.tsx', 'src/**/*.mock.tsx'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: ['**/keeping/session'],
              importNames: ['store'],
              message: 'Parts reach the store through hooks: useApp, useDo, useAppStore.',
            },
          ],
        },
      ],
    },
  },
  {
    // The parts are React Native's on every platform: what they need of a page lies in a .web file beside them.
    files: ['src/ui/**/*.{ts,tsx}'],
    ignores: ['src/**/*.web.{ts,tsx}', 'src/**/*.test.{ts,tsx}', 'src/**/*.mock.{ts,tsx}'],
    rules: { 'no-restricted-syntax': ['error', ...HTML, ...TEXTS, ...PAGE] },
  },
  {
    // The pages that show every part use texts of their own; what is drawn keeps the rule for texts alone.
    files: ['src/screens/kit/**'],
    rules: { 'no-restricted-syntax': ['error', ...HTML] },
  },
  {
    files: ['src/strings/**/*.{ts,tsx}', 'src/web/**/*.{ts,tsx}'],
    ignores: ['src/**/*.test.{ts,tsx}', 'src/**/*.mock.{ts,tsx}'],
    rules: { 'no-restricted-syntax': ['error', ...TEXTS] },
  },
  {
    files: ['src/**/*.{ts,tsx}'],
    ignores: [
      'src/strings/**',
      'src/web/**',
      'src/audio/**',
      'src/workers/**',
      'src/app/+html.tsx',
      'src/**/*.test.{ts,tsx}',
      'src/**/*.mock.{ts,tsx}',
    ],
    rules: {
      'no-restricted-globals': [
        'error',
        { name: 'document', message: 'The page itself is reached by src/strings and src/web only.' },
        { name: 'window', message: 'The page itself is reached by src/strings and src/web only.' },
      ],
    },
  },
  {
    // What is drawn in HTML answers to the same audit as the page does.
    files: ['src/strings/**/*.tsx', 'src/web/**/*.tsx', 'src/app/+html.tsx'],
    ignores: ['src/**/*.test.tsx', 'src/**/*.mock.tsx'],
    ...a11y.flatConfigs.recommended,
  },
  {
    // Tests look into parsed JSON and XML, and expect.objectContaining is of any type.
    files: ['**/*.{test,mock}.{ts,tsx}'],
    rules: {
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/no-unsafe-return': 'off',
    },
  },
  { files: ['**/*.{js,mjs,cjs}', 'bin/*'], languageOptions: { globals: globals.node } },
  { files: ['jest.dom.js'], languageOptions: { globals: globals.browser } },
  { files: ['**/*.{js,cjs}'], rules: { '@typescript-eslint/no-require-imports': 'off' } },
);
