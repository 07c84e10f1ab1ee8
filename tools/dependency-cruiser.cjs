/** Who may import whom: docs/conventions.md draws the same. */
const stages = ['measure', 'form', 'films', 'choose', 'stock', 'cut', 'prepare', 'lay', 'check', 'handover', 'days'];
const core = (inner) => `^core/src/${inner}/`;
module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'contracts-know-only-zod',
      severity: 'error',
      from: { path: '^contracts/src', pathNot: '\\.spec\\.ts$' },
      to: { path: '^(core|demo|server|web|e2e)/' },
    },
    { name: 'core-is-pure', severity: 'error', from: { path: '^core/src', pathNot: '\\.(spec|testing)\\.ts$' }, to: { path: '^(demo|server|web|e2e)/' } },
    {
      name: 'core-takes-only-types-of-contracts',
      severity: 'error',
      from: { path: '^core/src', pathNot: '\\.(spec|testing)\\.ts$' },
      to: { path: '^contracts/', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'core-libraries-behind-one-file',
      severity: 'error',
      from: {
        path: '^core/src',
        pathNot: '(\\.spec\\.ts$|^core/src/geometry/(linear|clip|svg-path)\\.ts$|^core/src/physics/sun-position\\.ts$|^core/src/ground/sha256\\.ts$)',
      },
      to: { path: 'node_modules', pathNot: 'node_modules/@yellow-pane' },
    },
    { name: 'ground-stands-alone', severity: 'error', from: { path: core('ground') }, to: { path: '^core/src/(?!ground/)' } },
    { name: 'record-on-ground', severity: 'error', from: { path: core('record'), pathNot: '\\.spec\\.ts$' }, to: { path: '^core/src/(?!ground/|record/)' } },
    { name: 'geometry-on-ground', severity: 'error', from: { path: core('geometry') }, to: { path: '^core/src/(?!ground/|geometry/)' } },
    {
      name: 'physics-on-geometry',
      severity: 'error',
      from: { path: core('physics'), pathNot: '\\.spec\\.ts$' },
      to: { path: '^core/src/(?!ground/|geometry/|physics/)' },
    },
    {
      name: 'form-on-physics',
      severity: 'error',
      from: { path: core('form'), pathNot: '\\.spec\\.ts$' },
      to: { path: '^core/src/(?!ground/|geometry/|physics/|measure/index|form/)' },
    },
    {
      name: 'instruments-know-no-stage',
      severity: 'error',
      from: { path: core('instruments'), pathNot: '\\.spec\\.ts$' },
      to: { path: `^core/src/(${stages.join('|')})/` },
    },
    ...stages.map((stage, i) => ({
      name: `${stage}-only-looks-back`,
      severity: 'error',
      from: { path: core(stage), pathNot: '\\.spec\\.ts$' },
      to: { path: `^core/src/(${stages.slice(i + 1).join('|') || 'none'})/` },
    })),
    {
      name: 'stages-meet-at-the-index',
      severity: 'error',
      from: { path: `^core/src/(${stages.join('|')})/`, pathNot: '\\.spec\\.ts$' },
      to: { path: `^core/src/(${stages.join('|')})/`, pathNot: '(^core/src/$1/|/index\\.ts$)' },
    },
    { name: 'routes-know-no-tables', severity: 'error', from: { path: '\\.routes\\.ts$' }, to: { path: '(drizzle|^core/|tables\\.ts$)' } },
    {
      name: 'services-know-no-express',
      severity: 'error',
      from: { path: '\\.service\\.ts$' },
      to: { path: '(node_modules/express|tables\\.ts$|node_modules/drizzle)' },
    },
    { name: 'repository-knows-no-core', severity: 'error', from: { path: '\\.repository\\.ts$' }, to: { path: '(^core/|node_modules/express)' } },
    { name: 'threads-know-no-database', severity: 'error', from: { path: '^server/src/compute' }, to: { path: '^server/src/db' } },
    { name: 'server-knows-no-web', severity: 'error', from: { path: '^server/' }, to: { path: '^(web|e2e)/' } },
    { name: 'web-knows-no-server', severity: 'error', from: { path: '^web/', pathNot: '\\.(spec|testing)\\.ts$' }, to: { path: '^(server|demo|e2e)/' } },
    { name: 'kit-knows-no-app', severity: 'error', from: { path: '^web/src/app/kit' }, to: { path: '^web/src/app/(record|compute|stations|shell)' } },
    { name: 'record-knows-no-station', severity: 'error', from: { path: '^web/src/app/(record|compute)' }, to: { path: '^web/src/app/(stations|shell)' } },
    {
      name: 'stations-know-no-other-station',
      severity: 'error',
      from: { path: '^web/src/app/stations/([^/]+)/' },
      to: { path: '^web/src/app/stations/', pathNot: '^web/src/app/stations/$1/' },
    },
    { name: 'demo-is-data', severity: 'error', from: { path: '^demo/src', pathNot: '\\.spec\\.ts$' }, to: { path: '^(core|server|web|e2e)/' } },
    { name: 'stories-drive-from-outside', severity: 'error', from: { path: '^e2e/' }, to: { path: '^(core|server|web)/' } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'types', 'default'], extensions: ['.ts', '.js', '.mjs'] },
  },
};
