import { describe, expect, test } from 'vitest';
import { poolSizes } from './database/connection';
import { readServerSettings } from './environment';

const DATABASE_URL = 'postgresql://somewhere/vine';

describe('how the server runs', () => {
  test('is on loopback without TLS unless it is told otherwise', () => {
    expect(readServerSettings({ DATABASE_URL })).toEqual({
      databaseUrl: DATABASE_URL,
      databaseConnections: 17,
      host: '127.0.0.1',
      port: 4680,
      publicUrl: null,
      tls: null,
      isSecure: false,
      isOfThisMachine: true,
      fileQuotaBytes: 2_048 * 1024 * 1024,
      auditHeadsFile: null,
      requestsPerMinute: 3_000,
      logLevel: 'info',
    });
  });

  test('beyond loopback needs a certificate and its key, and then cookies are secure', () => {
    for (const HOST of ['0.0.0.0', '192.168.7.1', '::', 'bench.example']) {
      expect(() => readServerSettings({ DATABASE_URL, HOST })).toThrow(/TLS_CERT and TLS_KEY/);
      expect(() => readServerSettings({ DATABASE_URL, HOST, TLS_CERT: 'a.pem' })).toThrow(
        /TLS_KEY/,
      );
      const files = { TLS_CERT: 'a.pem', TLS_KEY: 'a.key' };
      expect(readServerSettings({ DATABASE_URL, HOST, ...files })).toMatchObject({
        isSecure: true,
        tls: { certificateFile: 'a.pem', keyFile: 'a.key' },
      });
    }
  });

  test('behind a proxy the address that browsers use decides', () => {
    const secure = { DATABASE_URL, PUBLIC_URL: 'https://bench.example' };
    expect(readServerSettings(secure).isSecure).toBe(true);
    expect(readServerSettings({ ...secure, PUBLIC_URL: 'http://bench' }).isSecure).toBe(false);
    for (const PUBLIC_URL of ['bench', 'ftp://bench', 'https://bench/vine', 'https://bench/?a=1']) {
      expect(() => readServerSettings({ ...secure, PUBLIC_URL })).toThrow(/PUBLIC_URL/);
    }
    expect(readServerSettings(secure).isOfThisMachine).toBe(false);
    expect(() => readServerSettings({})).toThrow(/DATABASE_URL/);
  });

  test('a process works with five connections or more, and all of them have their use', () => {
    const connections = (PROCESS_CONNECTIONS: string) =>
      readServerSettings({ DATABASE_URL, PROCESS_CONNECTIONS }).databaseConnections;
    for (const tooFew of ['4', '0', 'many']) {
      expect(() => connections(tooFew)).toThrow(/start fewer processes/);
    }
    expect(poolSizes(connections('5'))).toEqual({ work: 2, sessions: 1 });
    expect(poolSizes(connections('17'))).toEqual({ work: 10, sessions: 5 });
  });
});
