import { copyFileSync, cpSync } from 'node:fs';
import { createRequire } from 'node:module';
import { defineConfig } from 'rolldown';

const require = createRequire(import.meta.url);
/** Packages stay outside the bundle; our own, also as `#name`, and what the compiler adds go in. */
const external = (id: string) =>
  /^[^./#]/.test(id) && !id.startsWith('@haycart/') && !id.startsWith('@oxc-project/') && !id.startsWith('/');

const FONTS = {
  figtree: require.resolve('@fontsource-variable/figtree/files/figtree-latin-wght-normal.woff2'),
  bricolage:
    require.resolve('@fontsource-variable/bricolage-grotesque/files/bricolage-grotesque-latin-wght-normal.woff2'),
  'plex-mono': require.resolve('@fontsource/ibm-plex-mono/files/ibm-plex-mono-latin-400-normal.woff2'),
};

const browser = (name: string) => ({
  input: `src/forms/browser/${name}.ts`,
  platform: 'browser' as const,
  output: { file: `dist/public/${name}.js`, format: 'iife' as const, minify: true },
});

export default defineConfig([
  {
    input: {
      main: 'src/main.ts',
      token: 'src/commands/token.ts',
      'reset-password': 'src/commands/reset-password.ts',
      'rotate-key': 'src/commands/rotate-key.ts',
      seed: '../../demo/src/seed.ts',
      'scan.worker': 'src/identity/scan.worker.ts',
      'sheet.worker': 'src/sheets/reading/sheet.worker.ts',
      'pdf.worker': 'src/platform/pdf/pdf.worker.ts',
      'candidates.worker': 'src/records/recognised/candidates.worker.ts',
    },
    platform: 'node',
    external,
    tsconfig: 'tsconfig.json',
    output: { dir: 'dist', format: 'esm', sourcemap: true, chunkFileNames: 'chunks/[name].js' },
    plugins: [
      {
        name: 'public-files',
        writeBundle() {
          cpSync('src/forms/browser/form.css', 'dist/public/form.css', { recursive: true });
          copyFileSync('src/platform/pdf/east-asian.ttc', 'dist/east-asian.ttc');
          for (const [name, file] of Object.entries(FONTS)) copyFileSync(file, `dist/public/${name}.woff2`);
        },
      },
    ],
  },
  browser('form'),
  browser('embed'),
  browser('preview'),
  browser('visit'),
]);
