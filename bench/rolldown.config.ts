import { defineConfig } from 'rolldown';

export default defineConfig({
  input: {
    accept: 'bench/accept.ts',
    route: 'bench/route.ts',
    form: 'bench/form.ts',
    lists: 'bench/lists.ts',
    rehearse: 'bench/rehearse.ts',
    quality: 'bench/quality.ts',
    match: 'bench/match.ts',
    scan: 'bench/scan.ts',
    import: 'bench/import.ts',
    grow: 'bench/grow.ts',
    read: 'bench/read.ts',
    deliver: 'bench/deliver.ts',
    follow: 'bench/follow.ts',
    decide: 'bench/decide.ts',
    report: 'bench/report.ts',
    handler: 'bench/plain/handler.ts',
  },
  platform: 'node',
  external: (id: string) =>
    /^[^./#]/.test(id) && !id.startsWith('@haycart/') && !id.startsWith('@oxc-project/') && !id.startsWith('/'),
  tsconfig: 'apps/server/tsconfig.json',
  output: { dir: 'bench/dist', format: 'esm', chunkFileNames: 'chunks/[name].js' },
});
