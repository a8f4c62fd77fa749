import js from '@eslint/js';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

export default ts.config(
	{ ignores: ['.svelte-kit/', 'build/', '.data/', 'node_modules/', '.dependency-cruiser.cjs'] },
	js.configs.recommended,
	...ts.configs.strict,
	...svelte.configs.recommended,
	{ languageOptions: { globals: { ...globals.browser, ...globals.node } } },
	{
		rules: {
			'no-undef': 'off',
			// Typed arrays are read inside their bounds; noUncheckedIndexedAccess then needs the mark.
			'@typescript-eslint/no-non-null-assertion': 'off',
			'@typescript-eslint/no-explicit-any': 'error',
			'svelte/no-navigation-without-resolve': 'off',
			// Results are kept raw and replaced whole; a reactive Map per column would only cost time.
			'svelte/prefer-svelte-reactivity': 'off',
			// {' '} keeps a space that the formatter would otherwise lose between a word and a chip.
			'svelte/no-useless-mustaches': 'off'
		}
	},
	{
		files: ['**/*.svelte', '**/*.svelte.ts'],
		languageOptions: {
			parserOptions: { extraFileExtensions: ['.svelte'], parser: ts.parser, svelteConfig }
		}
	},
	{
		files: ['tests/**'],
		rules: {
			'@typescript-eslint/no-unused-expressions': 'off',
			'no-restricted-imports': [
				'error',
				{ name: 'fast-check', message: 'Take it from tests/property, where its seed is set.' }
			]
		}
	},
	{
		files: ['src/lib/**', 'src/routes/**', 'src/core/cladding/**'],
		rules: {
			'no-restricted-syntax': [
				'error',
				{
					selector:
						"ObjectExpression:has(> Property[key.name='do']) > Property[key.name='path'] > :matches(TemplateLiteral, Literal)",
					message: 'Take the path from pathTo() or below(), which know what stands there.'
				}
			]
		}
	},
	{ files: ['tests/property.ts'], rules: { 'no-restricted-imports': 'off' } }
);
