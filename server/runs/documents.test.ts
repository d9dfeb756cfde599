import { createHash } from 'node:crypto';
import { inflateSync } from 'node:zlib';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Certificate } from '#core/titration/run';
import type { CertificateFile } from '#contract';
import { reproduce } from '../../calc/reproduce';
import { listAuditAfter } from '../audit/queries';
import { verifyAudit } from '../audit/verify';
import type { Client, TestLaboratory } from '../test-support/laboratory';
import { foundStockedLaboratory, startRun, titrateSeries } from '../test-support/laboratory';
import { decisionOf, runNow, signatureOf } from '../test-support/signing';

let laboratory: TestLaboratory;
let analyst: Client;
let runId: string;

beforeAll(async () => {
  const stocked = await foundStockedLaboratory();
  const { chief, ids } = stocked;
  ({ laboratory, analyst } = stocked);
  runId = await startRun(analyst, ids);
  await titrateSeries(analyst, runId);
  await analyst
    .post(`/api/runs/${runId}/signatures`, await signatureOf(laboratory, runId))
    .expect(204);
  await chief
    .post(`/api/runs/${runId}/certificate`, await decisionOf(laboratory, runId))
    .expect(201);
});
afterAll(() => laboratory.close());

/** Reads an answer as it is. */
type Parser = (
  answer: { on: (event: string, told: (chunk: Buffer) => void) => unknown },
  done: (error: null, body: Buffer) => void,
) => void;

const sha256 = (content: Buffer): string => createHash('sha256').update(content).digest('hex');

/** A document of the certificate as the server gives it out, with what its fact says of it. */
async function documentOf(type: string) {
  const stored = (await runNow(laboratory, runId)).certificates[0]?.documents.find(
    (one) => one.type === type,
  );
  if (!stored) throw new Error(`there is no ${type}`);
  const answer = await analyst
    .get(`/api/files/${stored.fileId}`)
    .buffer()
    .parse(bytes as never)
    .expect(200);
  return { stored, content: answer.body as Buffer };
}

/** Every object of a PDF, up to its stream, and the stream as it was before it was compressed. */
function objectsOf(pdf: Buffer): readonly { readonly head: string; readonly stream: Buffer }[] {
  const text = pdf.toString('latin1');
  return [...text.matchAll(/\d+ 0 obj\n(.*?)endobj/gs)].map(({ 1: body = '' }) => {
    const [head = '', stream = ''] = body.split('\nstream\n');
    const raw = Buffer.from(stream.replace(/\nendstream\n$/, ''), 'latin1');
    return { head, stream: head.includes('/FlateDecode') ? inflateSync(raw) : raw };
  });
}

const bytes: Parser = (answer, done) => {
  const chunks: Buffer[] = [];
  answer.on('data', (chunk: Buffer) => chunks.push(chunk));
  answer.on('end', () => {
    done(null, Buffer.concat(chunks));
  });
};

test('the file of a certificate is kept as it was issued: its SHA-256 holds, and it is computed again', async () => {
  const { stored, content } = await documentOf('application/json');
  expect(sha256(content)).toBe(stored.sha256);
  const served = await analyst.get(`/api/runs/${runId}/certificates/0001-1`).expect(200);
  expect(served.text).toBe(content.toString());
  const file = JSON.parse(content.toString()) as CertificateFile;
  expect(reproduce(file)).toMatchObject({ kind: 'identical' });

  const certificate = (await runNow(laboratory, runId)).certificate as Certificate;
  expect(file.certificate).toEqual(certificate);
  expect(file.document?.headline).toContain(
    `${certificate.molarity} ± ${certificate.expandedUncertainty} mol/L`,
  );
  const words = JSON.stringify(file.document);
  // What it goes back to, who answers for it, and what nobody may claim for us.
  for (const said of ['K-1', 'Oda Lind', 'Tam Berg', 'maker’s assay']) {
    expect(words).toContain(said);
  }
  expect(words).not.toMatch(/CRM|accredit/);
});

test('the log’s head that it states is the one before the issue', async () => {
  const { content } = await documentOf('application/json');
  const [, number = '', hash = ''] = /entry (\d+), ([0-9a-f]{64})/.exec(content.toString()) ?? [];
  const log = await listAuditAfter(laboratory.database.db, 0, 1_000);
  expect(log.find(({ sequence }) => sequence === Number(number))?.hash).toBe(hash);
  const issued = log.find(({ text }) => text.includes('"run.certified"'));
  expect(issued?.sequence).toBeGreaterThan(Number(number));
});

test('the certificate on paper is PDF/A-3b in its structure, with the file as its source', async () => {
  const { stored, content } = await documentOf('application/pdf');
  expect(sha256(content)).toBe(stored.sha256);
  const source = await documentOf('application/json');
  const objects = objectsOf(content);
  const having = (part: string) => objects.filter(({ head }) => head.includes(part));
  const [catalogue] = having('/Type /Catalog');
  expect(catalogue?.head).toMatch(/\/Lang \(en-GB\)/);
  expect(catalogue?.head).toMatch(/\/AF \[\d+ 0 R\]/);
  expect(catalogue?.head).toContain('/OutputIntents');
  expect(catalogue?.head).not.toContain('/StructTreeRoot');
  const [metadata] = having('/Type /Metadata');
  const xmp = metadata?.stream.toString() ?? '';
  expect(xmp).toContain('<pdfaid:part>3</pdfaid:part>');
  expect(xmp).toContain('<pdfaid:conformance>B</pdfaid:conformance>');
  expect(having('/AFRelationship /Source')).toHaveLength(1);
  expect(having('/Type /EmbeddedFile').map(({ stream }) => stream)).toEqual([source.content]);
  const fonts = having('/Type /FontDescriptor');
  expect(fonts.length).toBeGreaterThan(0);
  for (const { head } of fonts) expect(head).toMatch(/\/FontFile[23]? /);
  expect(content.toString('latin1')).not.toMatch(/\/(JavaScript|Encrypt|URI) /);
});

test('a document that the owner of the database changes is found', async () => {
  const { stored } = await documentOf('application/pdf');
  const { db, owner } = laboratory.database;
  await owner.raw('ALTER TABLE files DISABLE TRIGGER files_append_only');
  await owner('files')
    .where({ id: stored.fileId })
    .update({ content: Buffer.from('%PDF-1.7 other') });
  await owner.raw('ALTER TABLE files ENABLE TRIGGER files_append_only');
  const verdict = await verifyAudit(db);
  expect(verdict).toMatchObject({ kind: 'broken' });
  expect(JSON.stringify(verdict)).toContain(stored.fileId);
});
