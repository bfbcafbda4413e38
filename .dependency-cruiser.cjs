/** The rooms of the house and the way the arrows run: app, server, cli → formats → core; nothing back up, nothing round in a circle. */
const below = (name, from, to, comment) => ({
  name,
  comment,
  severity: 'error',
  from: { path: `^${from}/`, pathNot: '\\.test\\.ts$' },
  to: { path: to },
});

module.exports = {
  forbidden: [
    {
      name: 'no-circle',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    below('core-stands-alone', 'core', '^(formats|app|server|cli|demo|e2e|bench)/', 'core imports nothing above it'),
    below('formats-on-core', 'formats', '^(app|server|cli|e2e|bench)/', 'formats imports core alone'),
    below('demo-on-core', 'demo', '^(app|server|cli|e2e|bench)/', 'the demo is data'),
    below(
      'app-apart',
      'app',
      '^(server|cli|e2e|bench)/',
      'the application knows neither the server nor the command line',
    ),
    below(
      'server-apart',
      'server',
      '^(app|e2e|bench)/',
      'the server serves the built application and imports none of it',
    ),
    {
      name: 'cli-draws-as-the-page-does',
      comment: 'The command line composes and renders pictures; it imports nothing else of the application.',
      severity: 'error',
      from: { path: '^cli/', pathNot: '\\.test\\.ts$' },
      to: { path: '^app/', pathNot: '^app/(pictures/(compose|render)|ui/themes)' },
    },
    {
      name: 'core-has-no-packages-but-zod',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$|^core/testing/' },
      to: { dependencyTypes: ['npm', 'npm-dev', 'core'], pathNot: '^node_modules/zod' },
    },
    // Inside the application arrows run one way too: ui ← state ← edits ← sheet ← working ← chain ← pictures ← tasks ← shell.
    ...[
      ['ui', 'state|edits|sheet|working|chain|pictures|tasks|shell|workers'],
      ['state', 'edits|sheet|working|chain|pictures|tasks|shell|workers'],
      ['edits', 'sheet|working|chain|pictures|tasks|shell|workers'],
      ['sheet', 'working|chain|pictures|tasks|shell|workers'],
      ['working', 'chain|pictures|tasks|shell|workers'],
      ['chain', 'pictures|tasks|shell|workers'],
      ['pictures', 'tasks|shell|workers'],
      ['tasks', 'shell|workers'],
      ['shell', 'workers'],
    ].map(([room, above]) =>
      below(
        `app-${room}`,
        `app/${room}`,
        `^app/(${above})/`,
        'a room of the application imports what stands before it; workers are a leaf, told of and not imported',
      ),
    ),
    below('pictures-compose', 'app/pictures/compose', '^app/pictures/(render|page)/', 'pictures are composed as data'),
    below('pictures-render', 'app/pictures/render', '^app/pictures/page/', 'sinks and the renderer know no page'),
    {
      name: 'painter-without-the-page',
      comment: 'The drawing worker runs what composes and renders pictures.',
      severity: 'error',
      from: { path: '^app/workers/pictures' },
      to: { path: '^app/pictures/page/' },
    },
    {
      name: 'tasks-through-their-tables',
      comment: 'Nothing outside app/tasks imports from a task: the tables are built from the names.',
      severity: 'error',
      from: { path: '^(app|server|cli|formats|core|demo)/', pathNot: '^app/tasks/' },
      to: { path: '^app/tasks/[^/]+/' },
    },
    {
      name: 'tasks-keep-to-themselves',
      severity: 'error',
      from: { path: '^app/tasks/([^/]+)/' },
      to: { path: '^app/tasks/([^/]+)/', pathNot: '^app/tasks/$1/' },
    },
    {
      name: 'geometry-is-canonical',
      comment:
        'Geometry works in canonical space; conventions are for quantities, requests and the operations of a subject.',
      severity: 'error',
      from: { path: '^core/(math|camera|convert|bodies|pick)/', pathNot: '\\.test\\.ts$|/operations\\.ts$' },
      to: { path: '^core/conventions/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { extensions: ['.ts', '.tsx', '.js', '.mjs'] },
  },
};
