import { createServer } from 'node:http';
import pg from 'pg';

/** The yardstick for one client: a handler as one writes it first, one insert a request. */
const pool = new pg.Pool({ connectionString: process.env.DATABASE_URL, max: 20 });

createServer((request, response) => {
  const chunks: Buffer[] = [];
  request.on('data', (chunk: Buffer) => chunks.push(chunk));
  request.on('end', () => {
    const body = Buffer.concat(chunks).toString();
    JSON.parse(body);
    void pool.query('insert into yardstick (body) values ($1) returning id', [body]).then(({ rows }) => {
      response
        .writeHead(202, { 'content-type': 'application/json' })
        .end(JSON.stringify({ submissionId: (rows[0] as { id: string }).id }));
    });
  });
}).listen(Number(process.env.PORT), '127.0.0.1');
