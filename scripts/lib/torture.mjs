import { randomUUID } from 'node:crypto';
import {
  chmodSync,
  closeSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { chromium } from '@playwright/test';
import { prepareDatabase, runBuilt, startAppServer } from './app.mjs';
import { freePort, postgresProcessesIn, startCluster } from './cluster.mjs';
import { keepRunning } from './keep.mjs';
import { ROOT } from './place.mjs';
import { run } from './run.mjs';
import { seeded } from './seeded.mjs';

export const CHROMIUM_ARGS = [
  ...['--headless', '--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run'],
  ...['--disable-background-networking', '--disable-component-update', '--disable-sync'],
];

/** What can be done to it: a kill, or what the machine does on a bad day. A disk is filled by root alone, who can mount one. */
const BLOWS = /** @type {const} */ ([
  ...['app server killed', 'PostgreSQL killed', 'browser killed', 'database frozen'],
  ...(process.getuid?.() === 0 ? ['disk filled'] : []),
]);
/** @typedef {string} Blow */

/** How long a database stays frozen and a disk full, ms: long enough for several requests to give up. */
const BAD_MS = 6_000;

/** Room for a cluster and a little more, which a file can fill. */
const DISK = '600m';

/** Flasks of one run, after which an analyst begins another. */
const FLASKS = 25;

/** @typedef {{ flask: number, what: string, value: string }} Entry what somebody has written down */

/**
 * Strikes the running laboratory again and again: kills one of its parts as a power cut would, freezes its database or
 * fills its disk, while one analyst works in a real browser and others send facts as fast as they can. The servers come
 * back by themselves; after each blow everything acknowledged must be there once and in order.
 *
 * @param {{ rounds: number, seed: number, tell: (line: string) => void }} options
 * @returns {Promise<{ rounds: number, blows: Record<Blow, number>, entered: number, sent: number }>}
 * @throws Error that says what was lost or half-stored
 */
export async function torture({ rounds, seed, tell }) {
  const folder = mkdtempSync(join(tmpdir(), 'vine-torture-'));
  // The account of PostgreSQL passes through.
  chmodSync(folder, 0o711);
  const chance = seeded(seed);
  // On its own, so that the seed alone says what is killed.
  const fate = seeded(seed);
  const laboratory = new Laboratory(folder, await freePort(), await freePort());
  /** @type {Record<Blow, number>} */
  const blows = Object.fromEntries(BLOWS.map((blow) => [blow, 0]));
  /** @type {Blow[]} */
  const left = [];
  const typist = new Typist(laboratory, join(folder, 'browser'), chance);
  try {
    await laboratory.start();
    await typist.open();
    const senders = [new Sender(laboratory, chance), new Sender(laboratory, chance)];
    for (let round = 1; round <= rounds; round += 1) {
      // Each falls before one falls again.
      if (left.length === 0) left.push(...BLOWS);
      const [blow] = left.splice(Math.floor(fate() * left.length), 1);
      if (!blow) throw new RangeError('there is no blow left');
      const work = [typist, ...senders].map((worker) => worker.work());
      await sleep(300 + chance() * 2_200);
      await strike(blow, laboratory, typist);
      blows[blow] = (blows[blow] ?? 0) + 1;
      await sleep(chance() * 300);
      for (const worker of [typist, ...senders]) worker.isWorking = false;
      await Promise.all(work);
      await laboratory.recovered();
      await typist.settle();
      await Promise.all(senders.map((sender) => sender.settle()));
      await laboratory.check();
      await typist.check();
      for (const sender of senders) await sender.check();
      tell(
        `round ${round}: ${blow}; ${typist.count} entries typed, ${senders[0]?.count ?? 0} + ${senders[1]?.count ?? 0} sent, all there`,
      );
    }
    const sent = senders.reduce((total, sender) => total + sender.count, 0);
    return { rounds, blows, entered: typist.count, sent };
  } finally {
    await typist.kill();
    await laboratory.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** @param {Blow} blow @param {Laboratory} laboratory @param {Typist} typist */
async function strike(blow, laboratory, typist) {
  switch (blow) {
    case 'browser killed':
      return typist.kill();
    case 'PostgreSQL killed':
      return laboratory.kill(laboratory.cluster);
    case 'database frozen':
      return laboratory.freeze();
    case 'disk filled':
      return laboratory.fillDisk();
    default:
      return laboratory.kill(laboratory.server);
  }
}

/** Database and app server on ports that stay, kept running as the start command keeps them. */
class Laboratory {
  /** @param {string} folder @param {number} databasePort @param {number} port */
  constructor(folder, databasePort, port) {
    /** A disk of its own where that can be had. */
    this.disk = join(folder, 'disk');
    this.databasePort = databasePort;
    this.base = `http://127.0.0.1:${port}`;
    this.port = String(port);
    /** @type {import('./cluster.mjs').Cluster | null} */
    this.cluster = null;
    /** @type {import('./app.mjs').AppServer | null} */
    this.server = null;
    /** What is kept running, in the order of starting. @type {{ stop: () => Promise<void> }[]} */
    this.kept = [];
    this.env = {};
  }

  async start() {
    mkdirSync(this.disk);
    if (isRoot()) await mustRun('mount', ['-t', 'tmpfs', '-o', `size=${DISK}`, 'tmpfs', this.disk]);
    const data = join(this.disk, 'data');
    /** @type {unknown} */
    let givenUp = null;
    const told = {
      onAgain: () => undefined,
      onGivenUp: (/** @type {unknown} */ why) => {
        givenUp = why ?? new Error('it ended again and again');
      },
      // More blows than a bad day has fall on it here.
      atMost: 50,
    };
    this.kept.push(
      await keepRunning(async () => {
        this.cluster = await startCluster(data, { port: this.databasePort });
        return this.cluster;
      }, told),
    );
    const url = this.cluster?.webUrl('postgres') ?? '';
    this.env = { DATABASE_URL: url, DATABASE_OWNER_URL: this.cluster?.ownerUrl('postgres') ?? '' };
    await prepareDatabase(ROOT, this.env);
    await runBuilt(ROOT, 'Loading the demo', ['demo'], this.env);
    const env = { ...this.env, PORT: this.port, REQUESTS_PER_MINUTE: '1000000' };
    this.kept.push(
      await keepRunning(async () => {
        // Its log lies on the disk that is filled.
        this.server = await startAppServer(ROOT, env, join(this.disk, 'app.log'));
        return this.server;
      }, told),
    );
    this.isGivenUp = () => givenUp;
  }

  /** Waits until it serves again, by itself. */
  async recovered() {
    const deadline = Date.now() + 120_000;
    while (Date.now() < deadline) {
      const answer = await fetch(`${this.base}/readyz`).catch(() => null);
      if (answer?.status === 200) return;
      const why = this.isGivenUp?.();
      if (why) throw new Error('a server was given up', { cause: why });
      await sleep(100);
    }
    throw new Error('it does not come back by itself');
  }

  /** @param {{ pid: number, ended: Promise<unknown> } | null} victim */
  async kill(victim) {
    if (!victim) return;
    try {
      process.kill(victim.pid, 'SIGKILL');
    } catch {
      // It is being started again just now.
    }
    await victim.ended;
  }

  async freeze() {
    const pids = postgresProcessesIn(join(this.disk, 'data', 'pgdata'));
    for (const pid of pids) signal(pid, 'SIGSTOP');
    await sleep(BAD_MS);
    for (const pid of pids) signal(pid, 'SIGCONT');
  }

  async fillDisk() {
    const ballast = join(this.disk, 'ballast');
    const file = openSync(ballast, 'w');
    const block = Buffer.alloc(1024 * 1024);
    try {
      // Until there is no room for a block, then for a byte.
      for (const size of [block.length, 4096, 1]) {
        try {
          for (;;) writeSync(file, block, 0, size);
        } catch (error) {
          if (/** @type {NodeJS.ErrnoException} */ (error).code !== 'ENOSPC') throw error;
        }
      }
      await sleep(BAD_MS);
    } finally {
      closeSync(file);
      rmSync(ballast, { force: true });
    }
  }

  /** The audit log is whole, nothing stands outside it, and every list is what its facts say. */
  async check() {
    await runBuilt(ROOT, 'Verifying', ['audit'], this.env);
  }

  async stop() {
    for (const { stop } of this.kept.reverse()) await stop();
    if (isRoot()) await run('umount', [this.disk]);
  }
}

function isRoot() {
  return process.getuid?.() === 0;
}

/** @param {number} pid @param {NodeJS.Signals} name */
function signal(pid, name) {
  try {
    process.kill(pid, name);
  } catch {
    // It has just ended.
  }
}

/** @param {string} program @param {readonly string[]} args */
async function mustRun(program, args) {
  const { code, output } = await run(program, args);
  if (code !== 0) throw new Error(`${program}: ${output}`);
}

/** Somebody who is signed in, by plain requests. */
class Caller {
  /** @param {Laboratory} laboratory */
  constructor(laboratory) {
    this.laboratory = laboratory;
    this.cookie = '';
    this.token = '';
    this.personId = '';
  }

  /** @param {'GET' | 'POST'} method @param {string} path @param {object} [body] */
  async ask(method, path, body) {
    const answer = await fetch(`${this.laboratory.base}/api${path}`, {
      method,
      headers: {
        'content-type': 'application/json',
        cookie: this.cookie,
        'x-csrf-token': this.token,
      },
      ...(body && { body: JSON.stringify(body) }),
      signal: AbortSignal.timeout(10_000),
    });
    return {
      status: answer.status,
      cookie: answer.headers.get('set-cookie'),
      body: await answer.json(),
    };
  }

  /** Signs in as one of the demo's people, again when the session was lost in a crash. */
  async signIn() {
    const { body } = await this.ask('GET', '/session');
    if (body.kind === 'signed-in') return;
    const personId = body.demoPeople[0].id;
    const answer = await this.ask('POST', '/session/demo', { personId });
    this.cookie = answer.cookie?.split(';')[0] ?? '';
    this.token = answer.body.csrfToken;
    this.personId = personId;
  }

  /** A run on the records that the demo's half-done run rests on; gives its id. @returns {Promise<string>} */
  async startRun() {
    await this.signIn();
    /** @type {{ records: { id: string, analysisId: string | null }[] }} */
    const { records } = (await this.ask('GET', '/records/run')).body;
    // What it types is of a standardization; samples are pipetted.
    const like = records.find(({ analysisId }) => analysisId === null);
    const { facts } = (await this.ask('GET', `/runs/${like?.id ?? ''}`)).body;
    const runId = randomUUID();
    const { body, schemaVersion } = facts[0];
    const fact = { ...this.fact('run.started', body, runId), schemaVersion };
    const answer = await this.ask('POST', '/facts', fact);
    if (answer.status !== 201) throw new Error(`a run was refused: ${JSON.stringify(answer.body)}`);
    return runId;
  }

  /** @param {string} kind @param {object} body @param {string} recordId */
  fact(kind, body, recordId) {
    return {
      id: randomUUID(),
      recordId,
      recordKind: 'run',
      kind,
      schemaVersion: 1,
      body,
      authorId: this.personId,
      deviceId: null,
      deviceTime: new Date().toISOString(),
      clockOffsetMs: null,
      basedOn: null,
    };
  }
}

/** Sends facts of its own runs one after another, each until it is acknowledged. */
class Sender {
  /** @param {Laboratory} laboratory @param {() => number} chance */
  constructor(laboratory, chance) {
    this.caller = new Caller(laboratory);
    this.chance = chance;
    this.isWorking = false;
    this.runId = '';
    this.flask = 0;
    /** Ids of what was acknowledged, in order. @type {string[]} */
    this.acknowledged = [];
    /** Not acknowledged yet. @type {ReturnType<Caller['fact']> | null} */
    this.pending = null;
    this.count = 0;
  }

  async work() {
    this.isWorking = true;
    while (this.isWorking) await this.step();
  }

  /** Until nothing is pending. */
  async settle() {
    for (let turn = 0; this.pending; turn += 1) {
      if (turn > 100) throw new Error('a fact was never acknowledged');
      await this.step();
    }
  }

  async step() {
    try {
      if (this.runId === '') {
        await this.caller.signIn();
        this.runId = await this.caller.startRun();
        this.flask = 0;
        this.acknowledged = [];
      }
      if (!this.pending) {
        this.flask += 1;
        const massG = (0.47 + 0.02 * this.chance()).toFixed(4);
        const body = { flask: this.flask, weighing: { mode: 'tared', massG }, reason: null };
        this.pending = this.caller.fact('run.flask-weighed', body, this.runId);
      }
      const { status, body } = await this.caller.ask('POST', '/facts', this.pending);
      if (status === 401 || status === 403) {
        await this.caller.signIn();
      } else if (status === 200 || status === 201) {
        this.acknowledged.push(this.pending.id);
        this.pending = null;
        this.count += 1;
      } else if (status < 500) {
        throw new Refused(JSON.stringify(body));
      }
    } catch (error) {
      if (error instanceof Refused) throw error;
      // The server is away: the same fact again.
      await sleep(50);
    }
  }

  /** What was acknowledged is there once, in order, and nothing else but what is pending. */
  async check() {
    if (this.runId === '') return;
    await this.caller.signIn();
    const { facts } = (await this.caller.ask('GET', `/runs/${this.runId}`)).body;
    const stored = facts.slice(1).map((/** @type {{ id: string }} */ fact) => fact.id);
    expectSame('sent facts', stored, this.acknowledged);
    expectGapless(facts);
    if (this.flask >= FLASKS) this.runId = '';
  }
}

class Refused extends Error {}

/** Types into the bench in a real browser, whose profile outlives it. */
class Typist {
  /** @param {Laboratory} laboratory @param {string} profile @param {() => number} chance */
  constructor(laboratory, profile, chance) {
    this.laboratory = laboratory;
    this.profile = profile;
    this.chance = chance;
    this.isWorking = false;
    this.caller = new Caller(laboratory);
    this.runId = '';
    /** @type {import('@playwright/test').BrowserContext | null} */
    this.context = null;
    /** @type {import('@playwright/test').Page | null} */
    this.page = null;
    /** What the screen has said is kept, in order. @type {Entry[]} */
    this.kept = [];
    /** Typed when the browser was killed: kept or not, nobody can tell. @type {Entry | null} */
    this.doubtful = null;
    this.levelMl = 0;
    this.count = 0;
  }

  async open() {
    mkdirSync(this.profile, { recursive: true });
    this.context = await chromium.launchPersistentContext(this.profile, {
      executablePath: '/usr/bin/chromium',
      args: CHROMIUM_ARGS,
      viewport: { width: 1280, height: 800 },
    });
    this.page = this.context.pages()[0] ?? (await this.context.newPage());
    this.page.setDefaultTimeout(4_000);
    if (this.runId === '') {
      this.runId = await this.caller.startRun();
      this.kept = [];
    }
    await this.goToBench();
  }

  /** The bench with everything handed over, through the sign-in page when the session is gone. */
  async goToBench() {
    const { page } = this;
    if (!page) return;
    await page.goto(`${this.laboratory.base}/runs/${this.runId}`, { timeout: 15_000 });
    const door = page.getByRole('button', { name: /Mirela/ });
    const isOpen = page.getByRole('heading', { level: 1, name: /^Bottle/ });
    const isCalm = page.getByText('all entries kept');
    let calm = 0;
    for (let turn = 0; calm < 3; turn += 1) {
      if (turn > 400) {
        throw new Error(
          `the bench does not open; it says:\n${await page.locator('body').innerText()}`,
        );
      }
      if (await door.isVisible()) await door.click().catch(() => undefined);
      // What the browser has kept shows first, and the door only when the server has answered.
      calm = (await isOpen.isVisible()) && (await isCalm.isVisible()) ? calm + 1 : 0;
      await sleep(100);
    }
  }

  async work() {
    this.isWorking = true;
    while (this.isWorking && this.context) {
      try {
        await this.step();
      } catch {
        // The page dies with the browser; a page that asks for a sign-in or is loading is waited for.
        if (this.context) await sleep(50);
        else return;
      }
    }
  }

  /** Types what the screen asks for next. */
  async step() {
    const { page } = this;
    if (!page) return;
    const field = page.getByRole('form', { name: 'Next entry' }).getByRole('textbox').first();
    const another = page.getByRole('button', { name: 'Weigh another' });
    await field.or(another).first().waitFor({ timeout: 2_000 });
    if (!(await field.isVisible())) {
      await another.click();
      return;
    }
    const label = await labelOf(field);
    const [, what, number] =
      /(net mass|initial reading|final reading), flask (\d+)/.exec(label) ?? [];
    if (what === undefined) throw new Error(`the screen asks for something else: ${label}`);
    const titrate = page.getByRole('button', { name: /^Titrate flask/ });
    if (what === 'net mass' && (await titrate.first().isVisible())) {
      await titrate.first().click();
      return;
    }
    const entry = { flask: Number(number), what, value: this.valueFor(what) };
    await field.fill(entry.value);
    this.doubtful = entry;
    await page.keyboard.press('Enter');
    // The next question is asked when this one is written down; an unlikely value asks why first.
    const why = page.getByText('If it stands, why?');
    for (let turn = 0; turn < 150; turn += 1) {
      if (await why.isVisible()) {
        await page.getByLabel('If it stands, why?').fill('tried by the torture');
        await page.keyboard.press('Enter');
        await why.waitFor({ state: 'hidden' });
      }
      if ((await labelOf(field).catch(() => '')) !== label) break;
      await sleep(20);
    }
    this.kept.push(entry);
    this.doubtful = null;
    this.count += 1;
  }

  /** @param {string} what */
  valueFor(what) {
    if (what === 'net mass') return (0.47 + 0.02 * this.chance()).toFixed(4);
    if (what === 'initial reading') {
      this.levelMl = Math.round(100 * this.chance()) / 100;
      return this.levelMl.toFixed(2);
    }
    return (this.levelMl + 23.4 + 0.2 * this.chance()).toFixed(2);
  }

  /** Ends the browser as a power cut would. */
  async kill() {
    const pid = readdirSync('/proc').find((name) => {
      try {
        const words = readFileSync(`/proc/${name}/cmdline`, 'utf8').split('\0');
        return (
          words.includes(`--user-data-dir=${this.profile}`) &&
          !words.some((word) => word.startsWith('--type='))
        );
      } catch {
        return false;
      }
    });
    const { context } = this;
    this.context = null;
    this.page = null;
    if (pid) process.kill(Number(pid), 'SIGKILL');
    await context?.close().catch(() => undefined);
  }

  /** Opens the browser again if need be, and waits until it has handed over everything. */
  async settle() {
    if (this.context) await this.goToBench();
    else await this.open();
  }

  /** What the screen said was kept is on record once and in order; what was doubtful is there or not. */
  async check() {
    await this.caller.signIn();
    const { facts } = (await this.caller.ask('GET', `/runs/${this.runId}`)).body;
    expectGapless(facts);
    const stored = facts.slice(1).map(entryText);
    const kept = this.kept.map((entry) => `${entry.flask} ${entry.what} ${entry.value}`);
    if (this.doubtful && stored.length === kept.length + 1) {
      this.kept.push(this.doubtful);
      this.count += 1;
      const { flask, what, value } = this.doubtful;
      kept.push(`${flask} ${what} ${value}`);
    }
    this.doubtful = null;
    expectSame('typed entries', stored, kept);
    if (stored.length < 3 * FLASKS) return;
    this.runId = await this.caller.startRun();
    this.kept = [];
    await this.goToBench();
  }
}

/** What a field asks for. @param {import('@playwright/test').Locator} field */
function labelOf(field) {
  return field.evaluate(
    (element) => /** @type {HTMLInputElement} */ (element).labels?.[0]?.textContent ?? '',
    undefined,
    { timeout: 1_000 },
  );
}

/** A fact as the typist knows it. @param {any} fact */
function entryText({ kind, body }) {
  return kind === 'run.flask-weighed'
    ? `${body.flask} net mass ${body.weighing.massG}`
    : `${body.flask} ${body.moment} reading ${body.readingMl}`;
}

/** @param {string} what @param {readonly string[]} found @param {readonly string[]} expected */
function expectSame(what, found, expected) {
  const at = found.findIndex((item, i) => item !== expected[i]);
  if (at < 0 && found.length === expected.length) return;
  throw new Error(
    `${what}: ${found.length} stored, ${expected.length} expected; at ${at}: ${found[at]} for ${expected[at]}\nstored: ${found.join(', ')}\nexpected: ${expected.join(', ')}`,
  );
}

/** @param {readonly { sequence: number }[]} facts */
function expectGapless(facts) {
  const at = facts.findIndex((fact, i) => fact.sequence !== i + 1);
  if (at >= 0) throw new Error(`the facts of a run have a gap at ${at + 1}`);
}
