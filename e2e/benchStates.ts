import type { Page } from '@playwright/test';
import { expect } from '@playwright/test';
import { v7 } from 'uuid';
import { choose } from './laboratory';

/** What is entered of a run after it began. */
export interface Entered {
  readonly kind: string;
  readonly body: object;
  /** As seen by somebody who missed the last so many entries. */
  readonly missed?: number;
}

/** A fact as the bench sent it, and the address that another of its kind is sent to. */
type Sent = Readonly<Record<string, unknown>> & { readonly body: object };

/** Sets a run up by the page, and gives its first fact, after which others like it can be begun. */
export async function firstFact(page: Page, bottle: string, how: string): Promise<Sent> {
  await page.goto('/titrate/set-up');
  await choose(page, 'Bottle', bottle);
  await choose(page, 'How', how);
  const sent = page.waitForRequest(
    (request) => request.url().endsWith('/api/facts') && request.method() === 'POST',
  );
  await page.getByRole('button', { name: 'To the bench' }).click();
  const fact = (await sent).postDataJSON() as Sent;
  await expect(page.getByText('all entries kept')).toBeVisible();
  return fact;
}

/** Begins a run like another and enters what has been done on it; gives the address of its bench. */
export async function beginLike(
  page: Page,
  first: Sent,
  entered: readonly Entered[],
): Promise<string> {
  const session = await page.request.get('/api/session');
  const { csrfToken } = (await session.json()) as { csrfToken: string };
  const recordId = v7();
  const ids: string[] = [];
  const send = async (fact: object): Promise<void> => {
    const id = v7();
    const data = { ...first, id, recordId, ...fact };
    const answer = await page.request.post('/api/facts', {
      data,
      headers: { 'x-csrf-token': csrfToken },
    });
    expect(answer.status(), await answer.text()).toBeLessThan(300);
    ids.push(id);
  };
  await send({ basedOn: first.basedOn });
  for (const { kind, body, missed = 0 } of entered) {
    // An entry may name an earlier one by its place: `#3` is the third after the first.
    const named = JSON.parse(
      JSON.stringify(body).replaceAll(/"#(\d+)"/g, (_, i) => JSON.stringify(ids[Number(i)])),
    ) as object;
    await send({
      ...{ kind, body: named, basedOn: ids.length - missed, schemaVersion: versionOf(kind) },
      // A device has seen what was entered on it.
      ...(missed > 0 && { deviceId: v7() }),
    });
  }
  return `/runs/${recordId}`;
}

/** The shape in which a kind of fact is sent, where it has changed since its first. */
function versionOf(kind: string): number {
  return kind === 'run.incident-noted' ? 2 : 1;
}

export const weigh = (flask: number, massG = '0.4800'): Entered => ({
  kind: 'run.flask-weighed',
  body: { flask, weighing: { mode: 'tared', massG }, reason: null },
});

export const pipette = (flask: number, volumeMl = '25'): Entered => ({
  kind: 'run.flask-pipetted',
  body: { flask, volumeMl, reason: null },
});

const read = (flask: number, moment: 'initial' | 'final', readingMl: string): Entered => ({
  kind: 'run.burette-read',
  body: { flask, moment, readingMl, carriedFrom: null, reason: 'as it was read' },
});

export const start = (flask: number, readingMl = '0.10'): Entered =>
  read(flask, 'initial', readingMl);

export const end = (flask: number, readingMl = '23.60'): Entered => read(flask, 'final', readingMl);

/** Flasks weighed and titrated to the end. */
export const titrated = (...finals: readonly string[]): readonly Entered[] => [
  ...finals.map((_, i) => weigh(i + 1)),
  ...finals.flatMap((readingMl, i) => [start(i + 1), end(i + 1, readingMl)]),
];
