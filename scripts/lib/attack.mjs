import { randomUUID } from 'node:crypto';
import { Agent, request } from 'node:http';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { prepareDatabase, runBuilt, startAppServer } from './app.mjs';
import { freePort, startCluster } from './cluster.mjs';
import { ROOT } from './place.mjs';
import { seeded } from './seeded.mjs';

/** Requests under way at once. */
const AT_ONCE = 8;

/** @typedef {() => number} Chance */
/** @typedef {{ method: string, path: string, headers: Record<string, string>, body?: string | Buffer }} Sent */
/** @typedef {{ status: number, type: string, text: string }} Answered */

/** Texts that are read, stored, compared or shown somewhere. */
const TEXTS = [
  ...[
    '',
    ' ',
    '\u0000',
    'nul \u0000 in it',
    '\ud800',
    '\u202e',
    '\u200b',
    'e\u0301',
    '\ufeff',
    '🍇',
  ],
  ...["';--", '{{7*7}}', '<script>', '../../etc/passwd', '%s%n', '__proto__', 'constructor', '\\'],
  ...['0', '-0', '-0.00', '007.10', '1e3', '1e400', 'NaN', 'Infinity', '0.000000000001', '7,10'],
  ...['x'.repeat(121), 'x'.repeat(2_001), 'x'.repeat(70_000), 'a+'.repeat(40) + '->b'],
  ...['H2 + O2 + N2 + C + S + Cl2 + Na + K + P4 + F2 + I2 -> HCl + NaF + KI + PCl3'],
];

/** Days and times, right and wrong. */
const TIMES = [
  ...['2026-01-01T24:00:00.000Z', '2026-02-30T08:00:00.000Z', '0000-01-01T00:00:00.000Z'],
  ...['9999-12-31T23:59:59.999Z', '+010000-01-01T00:00:00.000Z', '1970-01-01T00:00:00.000Z'],
  ...[
    '2026-03-02T08:00:00Z',
    '2026-03-29T02:30',
    '0001-01-01',
    '2999-12-31',
    '2026-02-29',
    'today',
  ],
];

/** Numbers as they stand in JSON: at the limits of PostgreSQL's integers and of doubles, and beyond both. */
const NUMBERS = [
  ...['0', '-0', '-1', '1.5', '2147483647', '2147483648', '-2147483649', '3000000000'],
  ...['9007199254740993', '1e308', '1e400', '-1e400', '5e-324', '123456789012345678901234567890'],
];

const TYPES = [
  ...['application/json', 'application/json; charset=utf-16', 'application/json; charset=nonsense'],
  ...['text/plain', 'multipart/form-data; boundary=x', 'application/octet-stream', 'image/png', ''],
];

/** What an answer must not give away. */
const INSIDE = /node_modules|\bat \/|select |insert |password_hash|argon2|passwordHash|signing/i;

/** @template T @param {Chance} chance @param {readonly T[]} among @returns {T} */
function oneOf(chance, among) {
  return /** @type {T} */ (among[Math.floor(chance() * among.length)]);
}

/** JSON of a value whose hostile numbers are written as they are. @param {unknown} value */
function jsonOf(value) {
  return (JSON.stringify(value) ?? 'null').replaceAll(/"as it stands: ([^"]*)"/g, '$1');
}

/** @param {Chance} chance */
function hostile(chance) {
  const kind = chance();
  if (kind < 0.3) return oneOf(chance, TEXTS);
  if (kind < 0.5) return oneOf(chance, TIMES);
  if (kind < 0.75) return `as it stands: ${oneOf(chance, NUMBERS)}`;
  if (kind < 0.85) return randomUUID().toUpperCase();
  return oneOf(chance, [
    null,
    true,
    [],
    {},
    [[[[[[]]]]]],
    { ['__proto__']: 1 },
    Array(2_000).fill(1),
  ]);
}

/** A copy of a value with something hostile in a few of its places. @param {any} value @param {Chance} chance @returns {any} */
function spoilt(value, chance) {
  if (chance() < 0.02) return hostile(chance);
  if (Array.isArray(value)) return value.map((item) => spoilt(item, chance));
  if (value === null || typeof value !== 'object') return value;
  const entries = Object.entries(value).map(([key, item]) => [key, spoilt(item, chance)]);
  if (chance() < 0.03) entries.push([oneOf(chance, ['extra', '__proto__', 'toString']), 1]);
  if (chance() < 0.03) entries.pop();
  return Object.fromEntries(entries);
}

/** A value that a JSON Schema describes, roughly: what it cannot say is for the server to refuse. @param {any} schema @param {Chance} chance @returns {any} */
function described(schema, chance) {
  const choices = schema.anyOf ?? schema.oneOf;
  if (choices) return described(oneOf(chance, choices), chance);
  if ('const' in schema) return schema.const;
  if (schema.enum) return oneOf(chance, schema.enum);
  if (schema.properties) {
    return Object.fromEntries(
      Object.entries(schema.properties).map(([key, of]) => [key, described(of, chance)]),
    );
  }
  if (schema.prefixItems) {
    return schema.prefixItems.map((/** @type {any} */ of) => described(of, chance));
  }
  if (schema.type === 'array') return [described(schema.items ?? {}, chance)];
  if (schema.type === 'integer' || schema.type === 'number') return Math.floor(chance() * 5);
  if (schema.type === 'boolean') return chance() < 0.5;
  if (schema.type === 'null') return null;
  if (schema.format === 'uuid') return randomUUID();
  return oneOf(chance, ['0.4802', '2026-03-02', '2026-03-02T08:00:00.000Z', 'a plain text']);
}

/** Sends hostile requests to one server under the session of one of the demo's people. */
class Attacker {
  /** @param {number} port @param {Chance} chance */
  constructor(port, chance) {
    this.port = port;
    this.chance = chance;
    this.agent = new Agent({ keepAlive: true, maxSockets: AT_ONCE });
    this.cookie = '';
    this.token = '';
    this.personId = '';
    /** Ids of records that are there. @type {string[]} */
    this.ids = [];
    /** Facts that were taken once. @type {any[]} */
    this.facts = [];
    /** @type {any} */
    this.paths = {};
  }

  /** @param {Sent} sent @returns {Promise<Answered & { cookie: string }>} */
  ask({ method, path, headers, body }) {
    return new Promise((resolve, reject) => {
      const asked = request(
        { agent: this.agent, host: '127.0.0.1', port: this.port, method, path, headers },
        (answer) => {
          let text = '';
          answer.on('data', (chunk) => (text += chunk));
          answer.on('end', () =>
            resolve({
              status: answer.statusCode ?? 0,
              type: answer.headers['content-type'] ?? '',
              cookie: answer.headers['set-cookie']?.[0]?.split(';')[0] ?? '',
              text,
            }),
          );
        },
      );
      asked.on('error', reject);
      asked.end(body);
    });
  }

  async signIn() {
    const type = { 'content-type': 'application/json' };
    const offer = JSON.parse(
      (await this.ask({ method: 'GET', path: '/api/session', headers: {} })).text,
    );
    this.personId = offer.demoPeople[0].id;
    const answer = await this.ask({
      ...{ method: 'POST', path: '/api/session/demo', headers: type },
      body: JSON.stringify({ personId: this.personId }),
    });
    this.cookie = answer.cookie;
    this.token = JSON.parse(answer.text).csrfToken;
  }

  /** @param {string} path */
  async read(path) {
    const headers = { cookie: this.cookie };
    return JSON.parse((await this.ask({ method: 'GET', path: `/api${path}`, headers })).text);
  }

  /** Signs in and learns what there is to be spoilt. */
  async learn() {
    await this.signIn();
    this.paths = (await this.read('/openapi.json')).paths;
    for (const kind of ['laboratory', 'lot', 'equipment', 'bottle', 'preparation', 'run']) {
      const { records } = await this.read(`/records/${kind}`);
      this.ids.push(...records.map((/** @type {{ id: string }} */ { id }) => id));
    }
    const { records } = await this.read('/records/run');
    for (const { id } of records.slice(-4))
      this.facts.push(...(await this.read(`/runs/${id}`)).facts);
  }

  /** @returns {Sent} */
  next() {
    const { chance } = this;
    const [path, methods] =
      chance() < 0.4 ? ['/facts', this.paths['/facts']] : oneOf(chance, Object.entries(this.paths));
    const [method, operation] = oneOf(chance, Object.entries(methods));
    const isRead = method === 'get';
    const schema = operation.requestBody?.content['application/json'].schema;
    const body = isRead ? undefined : this.body(path, schema);
    return {
      method: method.toUpperCase(),
      path: this.address(path),
      headers: this.headers(body),
      ...(body === undefined ? {} : { body }),
    };
  }

  /** @param {string} path @param {any} schema */
  body(path, schema) {
    const { chance } = this;
    if (chance() < 0.05)
      return oneOf(chance, ['', '{', '[]', 'null', '"x"', '{"a":'.repeat(5_000)]);
    if (!schema)
      return Buffer.concat([oneOf(chance, [PNG, PDF, Buffer.alloc(64)]), Buffer.alloc(9)]);
    const value =
      path === '/facts' && chance() < 0.8 ? this.fact() : spoilt(described(schema, chance), chance);
    const text = jsonOf(value);
    return chance() < 0.03 ? gzipSync(text) : text;
  }

  /** A fact like one that was taken, spoilt in a place or two; sometimes the same again. */
  fact() {
    const { chance } = this;
    const known = { ...oneOf(chance, this.facts) };
    delete known.sequence;
    delete known.recordedAt;
    if (chance() < 0.05) return known;
    const fact = { ...known, id: randomUUID(), authorId: this.personId };
    if (known.kind === 'run.started' || chance() < 0.2) fact.recordId = randomUUID();
    return spoilt(fact, chance);
  }

  /** @param {string} path */
  address(path) {
    const { chance } = this;
    const filled = path.replaceAll(/\{\w+\}/g, () => {
      const kind = chance();
      if (kind < 0.5) return oneOf(chance, this.ids);
      if (kind < 0.6) return oneOf(chance, this.ids).toUpperCase();
      return encodeURIComponent(
        oneOf(chance, [...TEXTS.slice(10, 20), 'run', '1', '99999999999']),
      ).slice(0, 2_000);
    });
    const query =
      chance() < 0.3 ? `?name=${oneOf(chance, ['a.pdf', 'a.html', '%00', 'x.png'])}` : '';
    return `/api${filled}${query}`;
  }

  /** @param {string | Buffer | undefined} body @returns {Record<string, string>} */
  headers(body) {
    const { chance } = this;
    /** @type {Record<string, string>} */
    const headers = { cookie: this.cookie, 'x-csrf-token': this.token };
    if (chance() < 0.1) delete headers['cookie'];
    if (chance() < 0.05) headers['x-csrf-token'] = oneOf(chance, ['x', 'é'.repeat(32), '']);
    if (chance() < 0.05)
      headers['origin'] = oneOf(chance, ['http://elsewhere.example', 'null', 'x']);
    if (chance() < 0.02) headers['host'] = oneOf(chance, ['x'.repeat(4_000), 'a b', 'localhost:1']);
    if (chance() < 0.02) headers['cookie'] = `vine.session=${'x'.repeat(3_000)}`;
    if (body !== undefined) {
      headers['content-type'] = chance() < 0.85 ? 'application/json' : oneOf(chance, TYPES);
      if (chance() < 0.03) headers['content-encoding'] = oneOf(chance, ['gzip', 'br', 'nonsense']);
    }
    return headers;
  }
}

const PNG = Buffer.from('89504e470d0a1a0a0000000d49484452', 'hex');
const PDF = Buffer.from('%PDF-1.7\n');

/** What is wrong with an answer; null when it is as it should be. @param {Answered} answer */
function faultOf({ status, type, text }) {
  if (status >= 500) return `status ${status}: ${text.slice(0, 300)}`;
  if (status >= 400 && !type.startsWith('application/problem+json') && text !== '') {
    return `no problem details: ${type} ${text.slice(0, 200)}`;
  }
  return status >= 400 && INSIDE.test(text) ? `it gives away: ${text.slice(0, 300)}` : null;
}

/** Resident memory of a process, MB. @param {number} pid */
function residentMb(pid) {
  return Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]) / 1024;
}

/**
 * Sends hostile requests, made from the server's own description and from facts that it took, to a throw-away copy of the
 * demo. None may bring a 5xx or give anything away; afterwards the audit log is whole.
 *
 * @param {{ requests: number, seed: number, tell: (line: string) => void }} options
 * @returns {Promise<{ sent: number, byStatus: Record<number, number>, startMb: number, endMb: number }>}
 * @throws Error that names the request and its answer
 */
export async function attack({ requests, seed, tell }) {
  const folder = mkdtempSync(join(tmpdir(), 'vine-attack-'));
  const chance = seeded(seed);
  const cluster = await startCluster(folder, { durable: false });
  const env = {
    DATABASE_URL: cluster.webUrl('postgres'),
    DATABASE_OWNER_URL: cluster.ownerUrl('postgres'),
  };
  /** @type {import('./app.mjs').AppServer | null} */
  let server = null;
  try {
    await prepareDatabase(ROOT, env);
    await runBuilt(ROOT, 'Loading the demo', ['demo'], env);
    const port = await freePort();
    server = await startAppServer(ROOT, {
      ...env,
      ...{ PORT: String(port), LOG_LEVEL: 'silent', REQUESTS_PER_MINUTE: '100000000' },
    });
    const attacker = new Attacker(port, chance);
    await attacker.learn();
    const startMb = residentMb(server.pid);
    /** @type {Record<number, number>} */
    const byStatus = {};
    let sent = 0;
    let answered = 0;
    const lane = async () => {
      while (sent < requests) {
        sent += 1;
        const next = attacker.next();
        // An endless answer has tests of its own; signing out and new passwords would end the attack.
        if (/\/(events|session|account\/\w+)(\?|$)/.test(next.path)) continue;
        const answer = await attacker.ask(next);
        const fault = faultOf(answer);
        if (fault) {
          const { body = '', ...rest } = next;
          throw new Error(`${fault}\n${JSON.stringify(rest)}\n${body.toString().slice(0, 2_000)}`);
        }
        byStatus[answer.status] = (byStatus[answer.status] ?? 0) + 1;
        answered += 1;
        if (answered % 1_000 === 0)
          tell(`${answered} answered, ${residentMb(server?.pid ?? 0).toFixed(0)} MB`);
      }
    };
    await Promise.all(Array.from({ length: AT_ONCE }, lane));
    const endMb = residentMb(server.pid);
    tell(await runBuilt(ROOT, 'Verifying', ['audit'], env));
    return { sent, byStatus, startMb: Math.round(startMb), endMb: Math.round(endMb) };
  } finally {
    await server?.stop();
    await cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
