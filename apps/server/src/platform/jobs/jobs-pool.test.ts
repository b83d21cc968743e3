import { expect, test } from '@jest/globals';
import { jobsPool } from './jobs-pool';

test('a job that ends after the connections were ended is left without an answer, and fails nothing', async () => {
  const pool = jobsPool('postgres://nobody@127.0.0.1:1/none');
  await pool.end();
  const answers: unknown[] = [];
  pool.connect().then(
    (client) => answers.push(client),
    (cause: unknown) => answers.push(cause),
  );
  pool.connect((cause, client) => answers.push(cause ?? client));
  await new Promise((resolve) => setImmediate(resolve));
  expect(answers).toEqual([]);
});
