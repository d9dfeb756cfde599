// npm run bench: speed as ratios, each of figures measured in this one run. One line of JSON a figure.
import { randomUUID } from 'node:crypto';
import { fork, spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { prepareDatabase, runBuilt, startAppServer } from './lib/app.mjs';
import { measureLists } from './lib/benchLists.mjs';
import { measurePages } from './lib/benchPages.mjs';
import { measureTyping } from './lib/benchTyping.mjs';
import { buildWhenChanged } from './lib/build.mjs';
import { freePort, startCluster } from './lib/cluster.mjs';
import { growLaboratory, LARGE } from './lib/largeLaboratory.mjs';
import { installNodePackages } from './lib/packages.mjs';
import { ROOT } from './lib/place.mjs';
import { runCommand, say } from './lib/say.mjs';

const ANALYSTS = 50;
const SECONDS = 10;

/** Facts of the run on which a key press is timed. */
const LONG_RUN = 5_000;

/** Facts after which the memory of the app server is looked at again. */
const MANY_FACTS = 100_000;

/** @param {string} figure @param {object} values */
function print(figure, values) {
  console.log(JSON.stringify({ figure, ...values }));
}

/** Runs work on so many lanes until the time is over; gives how often it was done in a second. */
async function perSecond(/** @type {((lane: number) => Promise<void>)} */ work, seconds = SECONDS) {
  let done = 0;
  const end = Date.now() + 1000 * seconds;
  await Promise.all(
    Array.from({ length: ANALYSTS }, async (_, lane) => {
      while (Date.now() < end) {
        await work(lane);
        done += 1;
      }
    }),
  );
  return done / seconds;
}

/** @param {readonly number[]} values @param {number} part */
function quantile(values, part) {
  return values.toSorted((a, b) => a - b)[Math.floor(part * (values.length - 1))] ?? 0;
}

/** @param {number} value */
const round = (value) => Number(value.toPrecision(3));

/**
 * The same row as a fact, one INSERT each, on as many connections as there are analysts.
 * @param {string} url
 */
async function measureInserts(url) {
  const clients = Array.from({ length: ANALYSTS }, () => new pg.Client(url));
  for (const client of clients) client.on('error', () => undefined);
  await Promise.all(clients.map((client) => client.connect()));
  const [first] = clients;
  await first?.query(
    'CREATE TABLE bare (id uuid PRIMARY KEY, body jsonb NOT NULL, at timestamptz)',
  );
  const body = JSON.stringify({ flask: 1, weighing: { mode: 'tared', massG: '0.4802' } });
  const at = new Date().toISOString();
  const insert = (/** @type {number} */ lane) =>
    clients[lane]?.query({
      name: 'insert',
      text: 'INSERT INTO bare VALUES ($1, $2, $3)',
      values: [randomUUID(), body, at],
    });
  const bare = await perSecond(async (lane) => void (await insert(lane)));

  // The log on its own: its lock held over the flush of the disk, and given back before it as `durably` does.
  const entry = JSON.stringify({ at, by: randomUUID(), kind: 'printed', path: '/' });
  const held = await perSecond(async (lane) => {
    await clients[lane]?.query('SELECT append_audit($1)', [[entry]]);
  });
  await Promise.all(clients.map((client) => client.query('SET synchronous_commit = off')));
  const shared = await perSecond(async (lane) => {
    await clients[lane]?.query('SELECT append_audit($1)', [[entry]]);
    await clients[lane]?.query(
      "SET LOCAL synchronous_commit = on; SELECT pg_logical_emit_message(true, 'vine', '')",
    );
  });
  await Promise.all(clients.map((client) => client.end()));
  return { bare, held, shared };
}

/**
 * The same facts to the least that can acknowledge them; how many in a second.
 * @param {string} url of the database @param {{ cookie: string, token: string, personId: string }} session
 * @param {{ body: object, schemaVersion: number }} setUp
 */
async function measureBareHandler(url, session, setUp) {
  const port = String(await freePort());
  const child = fork(join(ROOT, 'scripts', 'lib', 'bareHandler.mjs'), {
    env: { ...process.env, DATABASE_URL: url, PORT: port, NODE_ENV: 'production' },
  });
  await once(child, 'message');
  const base = `http://127.0.0.1:${port}`;
  const analysts = Array.from({ length: ANALYSTS }, () => new Analyst(base, session, setUp));
  const send = async (/** @type {number} */ lane) => {
    await analysts[lane]?.send();
  };
  await perSecond(send, 2);
  const facts = await perSecond(send);
  child.kill();
  return facts;
}

/** Somebody who sends weighings to runs of their own. */
class Analyst {
  /** @param {string} base @param {{ cookie: string, token: string, personId: string }} session @param {{ body: object, schemaVersion: number }} setUp */
  constructor(base, session, setUp) {
    this.base = base;
    this.session = session;
    this.setUp = setUp;
    this.runId = '';
    this.flask = 99;
  }

  async send() {
    if (this.flask === 99) {
      this.runId = randomUUID();
      this.flask = 0;
      await this.post('run.started', this.setUp.body, this.setUp.schemaVersion);
    }
    this.flask += 1;
    const weighing = { mode: 'tared', massG: '0.4802' };
    await this.post('run.flask-weighed', { flask: this.flask, weighing, reason: null });
  }

  /** @param {string} kind @param {object} body @param {number} schemaVersion */
  async post(kind, body, schemaVersion = 1) {
    const answer = await fetch(`${this.base}/api/facts`, {
      method: 'POST',
      headers: {
        'content-type': 'application/json',
        cookie: this.session.cookie,
        'x-csrf-token': this.session.token,
      },
      body: JSON.stringify({
        ...{ id: randomUUID(), recordId: this.runId, recordKind: 'run', kind, schemaVersion },
        ...{ body, authorId: this.session.personId, deviceId: null, clockOffsetMs: null },
        ...{ deviceTime: new Date().toISOString(), basedOn: null },
      }),
    });
    if (answer.status !== 201) throw new Error(`${answer.status}: ${await answer.text()}`);
    await answer.arrayBuffer();
  }
}

/** @param {string} base */
async function signIn(base) {
  const offer = await (await fetch(`${base}/api/session`)).json();
  const answer = await fetch(`${base}/api/session/demo`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ personId: offer.demoPeople[0].id }),
  });
  const cookie = answer.headers.get('set-cookie')?.split(';')[0] ?? '';
  const { csrfToken, person, liveAfter } = await answer.json();
  return { cookie, token: csrfToken, personId: person.id, liveAfter };
}

/** Resident memory of a process, in MB. @param {number} pid */
function residentMb(pid) {
  const kB = /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1];
  return Number(kB) / 1024;
}

/** Time from sending a fact to its event in another browser, in ms. @param {string} base @param {Analyst} analyst */
async function measureLive(base, analyst) {
  const { cookie, liveAfter } = await signIn(base);
  const answer = await fetch(`${base}/api/events?after=${liveAfter}`, { headers: { cookie } });
  const reader = answer.body?.getReader();
  const times = [];
  for (let turn = 0; turn < 60; turn += 1) {
    const began = performance.now();
    const sent = analyst.send();
    let text = '';
    while (!text.includes('data:')) {
      text += Buffer.from((await reader?.read())?.value ?? []).toString();
    }
    times.push(performance.now() - began);
    await sent;
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
  await reader?.cancel();
  return times;
}

/**
 * What a measuring command of its own process prints, so that the peak memory is its own.
 * @param {string} command @param {readonly string[]} args @param {object} given @returns {Promise<any>}
 */
function measure(command, args, given) {
  return new Promise((resolve, reject) => {
    const file = join(ROOT, 'dist', 'server', `${command}.js`);
    const child = spawn(process.execPath, [file, ...args]);
    let output = '';
    child.stdout.on('data', (chunk) => (output += chunk));
    child.on('close', () => {
      try {
        resolve(JSON.parse(output));
      } catch (error) {
        reject(error);
      }
    });
    child.stdin.on('error', () => undefined);
    child.stdin.end(JSON.stringify(given));
  });
}

/** The computing core: its own ways against what somebody would write, or take, in their place. */
async function measureCore() {
  say('The computing core …');
  const simulation = await measure('measureCore', ['simulation'], {});
  print('Monte Carlo of a standardization, 18 inputs, 1e6 trials, against a hand-written loop', {
    ratio: round(simulation.modelMs / simulation.handMs),
    modelMs: Math.round(simulation.modelMs),
    handWrittenMs: Math.round(simulation.handMs),
    peakMb: simulation.peakMb,
  });
  print('a general-purpose expression library against that Monte Carlo', {
    ratio: round(simulation.libraryMs / simulation.modelMs),
    libraryMs: Math.round(simulation.libraryMs),
  });
  const curve = await measure('measureCore', ['curve'], {});
  print('bisection against the curve of a triprotic acid, 1,000 points', {
    ratio: round(curve.bisectionMs / curve.curveMs),
    curveMs: round(curve.curveMs),
    curveAgainstFiveMs: round(curve.curveMs / 5),
    peakMb: curve.peakMb,
  });
  const planner = await measure('measureCore', ['planner'], {});
  print('a plain enumeration against the planner, 500 bottles and 200 vessels', {
    ratio: round(planner.enumerationMs / planner.plannerMs),
    plannerMs: round(planner.plannerMs),
    plannerAgainstHundredMs: round(planner.plannerMs / 100),
    peakMb: planner.peakMb,
  });
  const chemistry = await measure('measureCore', ['chemistry'], {});
  print('molar masses against equations balanced, in the same time', {
    ratio: round(chemistry.molarMassesPerSecond / chemistry.balancingPerSecond),
    balancingPerSecond: Math.round(chemistry.balancingPerSecond),
    molarMassesPerSecond: Math.round(chemistry.molarMassesPerSecond),
    jsonAgainstBalancing: round(chemistry.jsonPerSecond / chemistry.balancingPerSecond),
    peakMb: chemistry.peakMb,
  });
}

/**
 * The pages that list things, in a laboratory of many years against the demo; the laboratory grows on the way.
 * @param {string} base @param {{ DATABASE_URL: string, DATABASE_OWNER_URL: string }} env
 */
async function measureLarge(base, env) {
  say('The lists of the demo …');
  const small = await measureLists(base);
  say('Growing a laboratory of many years …');
  await growLaboratory(env.DATABASE_OWNER_URL);
  await runBuilt(ROOT, 'Remaking the lists', ['rebuild'], env);
  say('The lists of many years …');
  const large = await measureLists(base);
  for (const [name, ms] of Object.entries(large.medianMs)) {
    const demoMs = small.medianMs[name] ?? 0;
    print(`${name} usable with ${LARGE.bottle} bottles and ${LARGE.run} runs against the demo`, {
      ratio: round(ms / demoMs),
      demoMs: Math.round(demoMs),
      largeMs: Math.round(ms),
    });
  }
  print('largest answer on the way, against 200 kB', {
    ratio: round(large.largestBytes / 200_000),
    kilobytes: Math.round(large.largestBytes / 1000),
  });
}

/** Each page against an empty one of the same stack, and what is done on it against 200 ms. @param {string} base */
async function measureEachPage(base) {
  say('Each page, cold, and its answers on a processor four times slower …');
  const session = await signIn(base);
  const first = async (/** @type {string} */ kind, query = '') => {
    const headers = { cookie: session.cookie };
    /** @type {{ records: { id: string }[] }} */
    const { records } = await (
      await fetch(`${base}/api/records/${kind}?${query}`, { headers })
    ).json();
    return records[0]?.id ?? '';
  };
  const run = await first('run', 'standing=open');
  const more = [
    ...[`/runs/${run}`, `/runs/${run}/judge`, `/runs/${run}/sheet`],
    ...[`/bottles/${await first('bottle', 'standing=certified')}`, `/lots/${await first('lot')}`],
    `/preparations/${await first('preparation', 'standing=open')}`,
  ];
  await measurePages(base, more, ({ page, coldMs, emptyMs, answerMs }) => {
    const name = page.replace(/\/[0-9a-f-]{36}/, '/:id');
    print(`${name} opened cold against an empty page of the same stack`, {
      ratio: round(coldMs / emptyMs),
      coldMs: Math.round(coldMs),
      emptyMs: Math.round(emptyMs),
    });
    print(`${name}: the longest answer with a processor four times slower, against 200 ms`, {
      ratio: round(answerMs / 200),
      answerMs: Math.round(answerMs),
    });
  });
}

await runCommand(async () => {
  await installNodePackages(ROOT);
  await buildWhenChanged(ROOT);
  const isPart = ['--lists', '--pages'].some((part) => process.argv.includes(part));
  if (!isPart) await measureCore();
  if (process.argv.includes('--core')) return;
  const folder = mkdtempSync(join(tmpdir(), 'vine-bench-'));
  const cluster = await startCluster(folder);
  const env = {
    DATABASE_URL: cluster.webUrl('postgres'),
    DATABASE_OWNER_URL: cluster.ownerUrl('postgres'),
  };
  const port = String(await freePort());
  const base = `http://127.0.0.1:${port}`;
  await prepareDatabase(ROOT, env);
  await runBuilt(ROOT, 'Loading the demo', ['demo'], env);
  const server = await startAppServer(ROOT, {
    ...env,
    PORT: port,
    LOG_LEVEL: 'silent',
    REQUESTS_PER_MINUTE: '10000000',
  });
  try {
    if (process.argv.includes('--lists')) {
      await measureLarge(base, env);
      return;
    }
    await measureEachPage(base);
    if (process.argv.includes('--pages')) return;
    const session = await signIn(base);
    const headers = { cookie: session.cookie };
    /** @type {{ records: { id: string, status: string, certificate: { number: string } | null }[] }} */
    const { records } = await (await fetch(`${base}/api/records/run`, { headers })).json();
    const run = await (
      await fetch(`${base}/api/runs/${records.find(({ status }) => status === 'open')?.id ?? ''}`, {
        headers,
      })
    ).json();
    const setUp = run.facts[0];
    const analysts = Array.from({ length: ANALYSTS }, () => new Analyst(base, session, setUp));

    say('Facts against bare INSERTs …');
    /** @type {number[]} */
    const times = [];
    const send = async (/** @type {number} */ lane) => {
      const began = performance.now();
      await analysts[lane]?.send();
      times.push(performance.now() - began);
    };
    await perSecond(send, 2);
    times.length = 0;
    const facts = await perSecond(send);
    const bare = await measureBareHandler(env.DATABASE_OWNER_URL, session, setUp);
    print('acknowledged facts against a bare handler with one durable INSERT, 50 analysts', {
      ratio: round(facts / bare),
      factsPerSecond: Math.round(facts),
      barePerSecond: Math.round(bare),
    });
    const inserts = await measureInserts(env.DATABASE_OWNER_URL);
    print('acknowledged facts against bare INSERTs, 50 analysts', {
      ratio: round(facts / inserts.bare),
      factsPerSecond: Math.round(facts),
      insertsPerSecond: Math.round(inserts.bare),
    });
    print('acknowledgement under that load, p99 against median', {
      ratio: round(quantile(times, 0.99) / quantile(times, 0.5)),
      medianMs: round(quantile(times, 0.5)),
      p99Ms: round(quantile(times, 0.99)),
    });
    print('audit log against bare INSERTs, 50 connections', {
      ratio: round(inserts.shared / inserts.bare),
      entriesPerSecond: Math.round(inserts.shared),
      entriesPerSecondWithTheLockHeldOverTheFlush: Math.round(inserts.held),
      entriesForOneFact: round(inserts.shared / facts),
    });

    const [alone] = analysts;
    if (alone) {
      const live = await measureLive(base, alone);
      print('fact to another browser against one second', {
        ratio: round(quantile(live, 0.99) / 1000),
        medianMs: round(quantile(live, 0.5)),
        p99Ms: round(quantile(live, 0.99)),
      });
      const quiet = [];
      for (let turn = 0; turn < 200; turn += 1) {
        const began = performance.now();
        await alone.send();
        quiet.push(performance.now() - began);
      }
      print('acknowledgement to one analyst, p99 against median', {
        ratio: round(quantile(quiet, 0.99) / quantile(quiet, 0.5)),
        medianMs: round(quantile(quiet, 0.5)),
        p99Ms: round(quantile(quiet, 0.99)),
      });
    }

    say(`A run of ${LONG_RUN} facts …`);
    const longRun = new Analyst(base, session, setUp);
    await longRun.send();
    // A check of the burette is an entry that a run may have any number of.
    const rest = Array.from({ length: LONG_RUN - 2 }, (_, i) => i);
    await Promise.all(
      analysts.map(async () => {
        while (rest.pop() !== undefined) await longRun.post('run.burette-checked', { faults: [] });
      }),
    );
    const typing = await measureTyping(base, longRun.runId);
    print(`key press to shown reaction at ${LONG_RUN} facts against 50 ms`, {
      ratio: round(quantile(typing.keyMs, 0.5) / 50),
      medianMs: round(quantile(typing.keyMs, 0.5)),
      p95Ms: round(quantile(typing.keyMs, 0.95)),
    });
    print(`the bench usable from a cold load at ${LONG_RUN} facts against 2 s`, {
      ratio: round(typing.coldMs / 2000),
      coldMs: Math.round(typing.coldMs),
    });

    const certified = records.find(({ status }) => status === 'certified');
    const file = await (
      await fetch(
        `${base}/api/runs/${certified?.id ?? ''}/certificates/${certified?.certificate?.number ?? ''}`,
        { headers },
      )
    ).json();
    const certificate = await measure('measureCertificate', [], file);
    print('a certificate as PDF against an empty PDF of the same library', {
      ratio: round(certificate.certificateMs / certificate.emptyMs),
      certificateMs: Math.round(certificate.certificateMs),
      peakMb: certificate.peakMb,
    });
    print('20 titrations judged against 4 (5 is linear)', {
      ratio: round(certificate.judgeTwentyMs / certificate.judgeFourMs),
      judgeTwentyMs: round(certificate.judgeTwentyMs),
    });

    const fold = await measure('measureFold', [], run);
    print('fold of 10,000 facts against 1,000 (10 is linear)', {
      ratio: round(fold.tenThousandMs / fold.thousandMs),
      tenThousandMs: round(fold.tenThousandMs),
      peakMb: fold.peakMb,
    });

    if (process.argv.includes('--quick')) return;
    await measureLarge(base, env);
    say(`Memory over ${MANY_FACTS} facts …`);
    const memory = [residentMb(server.pid)];
    let sent = 0;
    for (let part = 1; part <= 10; part += 1) {
      await Promise.all(
        analysts.map(async (analyst) => {
          while (sent < (part * MANY_FACTS) / 10) {
            sent += 1;
            await analyst.send();
          }
        }),
      );
      memory.push(residentMb(server.pid));
    }
    print('memory of the app server after 100,000 facts against after 10,000', {
      ratio: round((memory[10] ?? 0) / (memory[1] ?? 1)),
      megabytes: memory.map(Math.round),
    });
  } finally {
    await server.stop();
    await cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
});
