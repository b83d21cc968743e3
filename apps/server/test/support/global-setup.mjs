import { execFileSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const script = fileURLToPath(new URL('../../../../scripts/cluster.sh', import.meta.url));

/** Starts a PostgreSQL of its own for the tests, with its default durability, and removes it afterwards. */
export default function setUp() {
  const folder = join(mkdtempSync(join(tmpdir(), 'haycart-test-')), 'database');
  process.env.HAYCART_TEST_CLUSTER = execFileSync('sh', [script, 'start', folder], { encoding: 'utf8' }).trim();
  globalThis.removeTestCluster = () => execFileSync('sh', [script, 'remove', folder]);
}
