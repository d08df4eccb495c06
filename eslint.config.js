import js from '@eslint/js';
import globals from 'globals';
import svelte from 'eslint-plugin-svelte';
import ts from 'typescript-eslint';

export default ts.config(
  { ignores: ['build/', '.svelte-kit/', 'node_modules/', 'static/'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...svelte.configs.recommended,
  { languageOptions: { globals: { ...globals.browser, ...globals.node } } },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: { parserOptions: { parser: ts.parser } },
    rules: { 'svelte/no-navigation-without-resolve': 'off', 'svelte/prefer-svelte-reactivity': 'off' }
  },
  {
    rules: {
      'no-undef': 'off',
      '@typescript-eslint/no-explicit-any': 'error',
      'max-lines': ['warn', { max: 450, skipComments: true, skipBlankLines: true }]
    }
  },
  {
    // Controls are the kit's. The drawings and the grid have their own.
    files: ['src/**/*.svelte'],
    ignores: [
      'src/lib/kit/**',
      'src/lib/components/Stair.svelte',
      'src/lib/estate/Grid.svelte',
      'src/lib/catalogue/Calendar.svelte',
      'src/lib/catalogue/HopTable.svelte',
      'src/lib/catalogue/SketchPanel.svelte',
      'src/routes/ready/marks/+page.svelte'
    ],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: "SvelteElement[kind='html'][name.name=/^(button|input|select|textarea|table|dialog)$/]",
          message: 'take the part of src/lib/kit'
        }
      ]
    }
  },
  { files: ['src/**'], ignores: ['src/**/*.test.ts'], rules: { 'max-params': ['error', 4] } },
  {
    // What browsers give to pages with encryption alone: on a network without it there is none.
    files: ['src/lib/**', 'src/routes/**'],
    ignores: ['src/lib/server/**'],
    rules: {
      'no-restricted-properties': [
        'error',
        { object: 'crypto', property: 'randomUUID', message: 'take newId of state/ids' },
        { object: 'crypto', property: 'subtle', message: 'may not be there' },
        { object: 'navigator', property: 'locks', message: 'may not be there' },
        { object: 'navigator', property: 'clipboard', message: 'may not be there' }
      ]
    }
  },
  {
    // The core touches no world: no clock, randomness, DOM, network or storage.
    files: ['src/core/**/*.ts'],
    ignores: ['src/core/**/*.test.ts'],
    rules: {
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'fetch',
        'localStorage',
        'indexedDB',
        'setTimeout',
        'setInterval',
        'performance',
        'process',
        'navigator',
        'self',
        'crypto'
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now' },
        { object: 'Math', property: 'random' }
      ],
      'no-restricted-syntax': [
        'error',
        {
          selector: "NewExpression[callee.name='Date'][arguments.length=0]",
          message: 'the core has no clock'
        },
        {
          selector: "CallExpression[callee.property.name='localeCompare']",
          message: 'no host locale in the core'
        }
      ]
    }
  }
);
