/** Imports go one way; each rule says what to do where it breaks. */
module.exports = {
  forbidden: [
    {
      name: 'no-circles',
      comment: 'Two files that need each other are one, or want a third that both import.',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    {
      name: 'loader-stands-alone',
      comment: 'What the loader carries never imports the second file: hand it over through `More`.',
      severity: 'error',
      from: { path: '^visitor-script/src/', pathNot: ['^visitor-script/src/more/', '\\.test\\.ts$'] },
      to: { path: '^visitor-script/src/more/' },
    },
    {
      name: 'drawing-knows-no-app',
      comment: 'What draws is told by its document and its actions; it never imports what runs it.',
      severity: 'error',
      from: { path: '^visitor-script/src/render/' },
      to: { path: '^visitor-script/src/(app|shown|visit|net|turns|memory|main)\\.ts$', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'generated-stands-alone',
      comment: 'Types that are made from the schema import nothing.',
      severity: 'error',
      from: { path: '/generated/' },
      to: { path: '^(console|visitor-script)/src/' },
    },
    {
      name: 'shared-knows-no-place',
      comment: 'What every place uses imports none of them: move it into the place, or what it wants out of it.',
      severity: 'error',
      from: { path: '^console/src/(parts|lib|api)/' },
      to: { path: '^console/src/places/' },
    },
    {
      name: 'lib-draws-nothing',
      comment: 'lib has no components.',
      severity: 'error',
      from: { path: '^console/src/lib/' },
      to: { path: '\\.vue$' },
    },
    {
      name: 'visitors-code-by-its-face',
      comment: 'The console draws with what visitors get: by `render`, `more` and the types of the wire.',
      severity: 'error',
      from: { path: '^console/src/' },
      to: { path: '^visitor-script/src/', pathNot: ['^visitor-script/src/(render|more|generated)/'] },
    },
    {
      name: 'visitors-know-no-console',
      comment: 'Nothing of the console goes to visitors.',
      severity: 'error',
      from: { path: '^visitor-script/' },
      to: { path: '^console/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)dist/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { extensions: ['.ts', '.vue', '.js', '.json'] },
  },
}
