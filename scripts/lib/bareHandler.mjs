// The least that can acknowledge a fact: an Express handler that parses the same body and makes one durable INSERT. For `npm run bench`,
// which runs it as a process of its own.
import express from 'express';
import pg from 'pg';

const pool = new pg.Pool({ connectionString: process.env['DATABASE_URL'], max: 10 });
await pool.query(
  'CREATE TABLE IF NOT EXISTS bare_facts (id uuid PRIMARY KEY, record_id uuid NOT NULL, kind text NOT NULL, body jsonb NOT NULL, at timestamptz NOT NULL)',
);

const app = express();
app.use(express.json({ limit: '64kb' }));
app.post('/api/facts', async (request, response) => {
  const { id, recordId, kind, body, deviceTime } = request.body;
  await pool.query({
    name: 'insert',
    text: 'INSERT INTO bare_facts VALUES ($1, $2, $3, $4, $5)',
    values: [id, recordId, kind, body, deviceTime],
  });
  response.status(201).json(request.body);
});
app.listen(Number(process.env['PORT']), '127.0.0.1', () => process.send?.('ready'));
