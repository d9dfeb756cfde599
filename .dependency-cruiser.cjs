/** The rooms of the house and who may call on whom. @type {import('dependency-cruiser').IConfiguration} */
module.exports = {
  forbidden: [
    {
      name: 'core-imports-nothing-of-ours',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$|^core/test-support/' },
      to: { path: '^(calc|contract|server|web|demo)/' },
    },
    {
      name: 'core-uses-only-arithmetic-packages',
      comment:
        'Decimals, fractions, calendar dates, distributions, chance and the parser of typed equations come from libraries.',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$|^core/test-support/' },
      to: {
        dependencyTypesNot: ['local', 'aliased', 'aliased-subpath-import'],
        pathNot: [
          'node_modules/big\\.js/',
          'node_modules/canonicalize/',
          'node_modules/@internationalized/date/',
          'node_modules/@noble/hashes/',
          'node_modules/@stdlib/',
          'node_modules/fraction\\.js/',
          'node_modules/mathjs/',
          'node_modules/pure-rand/',
          '^core/',
        ],
      },
    },
    {
      name: 'contract-imports-core-valibot-and-uuid',
      severity: 'error',
      from: { path: '^contract/', pathNot: '\\.test\\.ts$' },
      to: { pathNot: ['^contract/', '^core/', 'node_modules/valibot/', 'node_modules/uuid/'] },
    },
    {
      name: 'calc-imports-core-contract-and-valibot',
      comment: 'Its commands read files; the rest of it runs in a browser as well.',
      severity: 'error',
      from: { path: '^calc/', pathNot: ['\\.test\\.ts$', '^calc/commands/'] },
      to: {
        pathNot: [
          '^calc/',
          '^core/',
          '^contract/',
          'node_modules/valibot/',
          'node_modules/@valibot/',
        ],
      },
    },
    {
      name: 'server-and-web-never-meet',
      severity: 'error',
      from: { path: '^server/' },
      to: { path: '^(web|demo)/' },
    },
    {
      name: 'web-and-server-never-meet',
      severity: 'error',
      from: { path: '^web/' },
      to: { path: '^(server|demo)/' },
    },
    {
      name: 'core-by-its-front-doors',
      severity: 'error',
      from: { path: '^(calc|contract|server|web|demo)/', pathNot: '\\.test\\.tsx?$' },
      to: { path: '^core/', pathNot: '^core/[^/]+/index\\.ts$|^core/titration/[^/]+/index\\.ts$' },
    },
    {
      name: 'core-rooms-by-their-front-doors',
      severity: 'error',
      from: { path: '^core/([^/]+)/', pathNot: '\\.test\\.ts$' },
      to: {
        path: '^core/',
        pathNot: ['^core/$1/', '^core/[^/]+/index\\.ts$', '^core/titration/[^/]+/index\\.ts$'],
      },
    },
    {
      name: 'rooms-of-titration-by-their-front-doors',
      severity: 'error',
      from: { path: '^core/titration/([^/]+)/', pathNot: '\\.test\\.ts$' },
      to: {
        path: '^core/titration/',
        pathNot: ['^core/titration/$1/', '^core/titration/[^/]+/index\\.ts$'],
      },
    },
    {
      name: 'the-interface-kit-knows-no-feature',
      severity: 'error',
      from: { path: '^web/ui/' },
      to: { path: '^web/(?!ui/)' },
    },
    {
      name: 'pages-do-not-know-the-frame',
      comment: 'The router opens them; they open nothing of it.',
      severity: 'error',
      from: { path: '^web/(?!app/|main)', pathNot: '\\.test\\.tsx?$' },
      to: { path: '^web/app/(App|router|Shell|Spine)\\.' },
    },
    {
      name: 'these-pages-know-no-others',
      severity: 'error',
      from: { path: '^web/(history|interface|people|rules|signIn|stock|verification)/' },
      to: {
        path: '^web/(interface|judge|people|prepare|rules|shelf|signIn|stock|titrate|verification)/',
        pathNot: '^web/$1/',
      },
    },
    {
      name: 'parts-of-the-server-know-not-each-other',
      comment:
        'What they share is the ledger, the audit, people, the printer, the table of files and the database.',
      severity: 'error',
      from: { path: '^server/(files|labels|live|preparations|runs)/', pathNot: '\\.test\\.ts$' },
      to: {
        path: '^server/(files|labels|live|preparations|runs|commands)/',
        pathNot: ['^server/$1/', '^server/files/queries\\.ts$'],
      },
    },
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'no-development-packages-at-run-time',
      severity: 'error',
      from: {
        path: '^(core|calc|contract|server|web|demo)/',
        pathNot: ['\\.test\\.tsx?$', 'test-support/'],
      },
      to: { dependencyTypes: ['npm-dev'], dependencyTypesNot: ['type-only'] },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
      extensions: ['.ts', '.tsx', '.mjs', '.js', '.css'],
    },
  },
};
