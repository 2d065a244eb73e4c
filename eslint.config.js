// Promise rules, forbidden outside-world calls in core, and the one-way roads between the rooms.
import regexp from 'eslint-plugin-regexp';
import tseslint from 'typescript-eslint';

const roads = {
  core: [],
  contract: ['@grivo/core'],
  server: ['@grivo/core', '@grivo/contract'],
  web: ['@grivo/core', '@grivo/contract'],
  standins: [],
};
const rooms = ['core', 'contract', 'server', 'web', 'standins'];

/** What a room may not import: every other room it has no road to, and any deep path into a room. */
function closedTo(room, extra = []) {
  const open = [...roads[room], ...extra];
  const closed = rooms.map((r) => `@grivo/${r}`).filter((name) => !open.includes(name));
  return [
    'error',
    {
      paths: closed.map((name) => ({ name, message: `${room} has no road to ${name}` })),
      patterns: [
        { group: rooms.map((r) => `@grivo/${r}/*`), message: 'import a room by its index' },
        { group: rooms.map((r) => `**/${r}/src/**`), message: 'import a room by its name' },
      ],
    },
  ];
}

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '.cache/**', '.grivo/**', 'docs/**', 'vitest.config.ts'] },
  {
    files: ['**/*.ts', '**/*.tsx'],
    languageOptions: { parser: tseslint.parser, parserOptions: { projectService: true } },
    plugins: { '@typescript-eslint': tseslint.plugin },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
      '@typescript-eslint/await-thenable': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
    },
  },
  {
    // Texts from outside are searched by these: each pattern takes a time that grows as the text does, whatever it holds.
    files: ['core/src/**/*.ts', 'contract/src/**/*.ts', 'server/src/**/*.{ts,mjs}', 'web/src/**/*.{ts,tsx}'],
    ignores: ['**/*.test.ts', '**/*.test.tsx'],
    plugins: { regexp },
    rules: {
      'regexp/no-super-linear-backtracking': ['error', { report: 'potential' }],
      'regexp/no-super-linear-move': ['error', { report: 'potential' }],
    },
  },
  ...rooms.map((room) => ({
    files: [`${room}/src/**/*.{ts,tsx}`],
    rules: { 'no-restricted-imports': closedTo(room) },
  })),
  {
    // Statements stand with their nouns: a route or a step asks a noun, and says nothing in SQL.
    files: ['server/src/api/**/*.ts', 'server/src/steps/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'CallExpression[callee.property.name=/^(rows|run)$/][callee.object.name=/^(db|sql)$/]',
          message: 'a statement stands with its noun',
        },
        {
          selector: "CallExpression[callee.property.name=/^(rows|run)$/][callee.object.property.name='db']",
          message: 'a statement stands with its noun',
        },
      ],
    },
  },
  {
    files: ['web/src/**/*.ts', 'web/src/**/*.tsx'],
    ignores: ['web/src/words/copy.ts', '**/*.test.ts', '**/*.test.tsx'],
    rules: {
      'no-restricted-properties': [
        'error',
        { object: 'crypto', property: 'randomUUID', message: 'pages over http have none: freshKey' },
        { object: 'navigator', property: 'clipboard', message: 'pages over http have none: copyText' },
      ],
    },
  },
  {
    files: ['core/src/**/*.ts', 'contract/src/**/*.ts'],
    rules: {
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'chance is an argument' },
        { object: 'Date', property: 'now', message: 'time is an argument' },
      ],
      'no-restricted-syntax': [
        'error',
        { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: 'time is an argument' },
        { selector: "MemberExpression[object.name='Temporal'][property.name='Now']", message: 'time is an argument' },
      ],
    },
  },
);
