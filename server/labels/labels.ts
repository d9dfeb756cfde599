import { impossible } from '#core/record';
import type { Knex } from 'knex';
import { bottleLink, labelOf } from '#core/label';
import {
  decimalMarkOf,
  DEFAULT_HOUSE_RULES,
  DEFAULT_SETTINGS,
  paperUnitsOf,
} from '#core/laboratory';
import { withFigures } from '#core/measurement';
import type { BottleState, Parent } from '#core/reagent';
import type { PersonState } from '#core/people';
import { authorOf } from '#core/people';
import type { LabelsRequest } from '#contract';
import { durably } from '../database/durably';
import { lockAndOpen, makeServerFact, refuseUnlessMay, storeNext } from '../ledger/append';
import { findLaboratory, findProjection } from '../ledger/queries';
import { unknownReference } from '../ledger/references';
import { findPerson } from '../people/queries';
import { dateText } from '../print/inWords';
import type { PrintedLabel } from '../print/labelsPdf';
import type { Printer } from '../print/printer';
import type { Services } from '../services';

/**
 * Labels of bottles as a PDF; each bottle's record says that one was made, so that a second label is known to be one.
 *
 * @throws AppError `unknown-reference` for a bottle that is not there; then no label is made.
 */
export async function makeLabels(
  { services, printer }: { readonly services: Services; readonly printer: Printer },
  person: PersonState,
  { bottleIds, sheet, startAt }: LabelsRequest,
  baseUrl: string,
): Promise<Buffer> {
  refuseUnlessMay(authorOf(person), 'enter');
  const labels: PrintedLabel[] = [];
  for (const id of bottleIds) labels.push(await printedLabel(services.db, id, baseUrl));
  const pdf = await printer.print(person.id, { kind: 'labels', labels, sheet, startAt });
  const unique = [...new Set(bottleIds)];
  await durably(services.db, async (tx) => {
    const inside = { ...services, db: tx };
    const opened = await lockAndOpen(
      inside,
      unique.map((id) => ({ id, kind: 'bottle' })),
    );
    const facts = unique.map((recordId) =>
      makeServerFact(services, person.id, {
        recordId,
        recordKind: 'bottle',
        kind: 'bottle.labelled',
        body: { sheet: sheet.name },
      }),
    );
    await storeNext(inside, authorOf(person), facts, opened);
  });
  return pdf;
}

async function printedLabel(db: Knex, bottleId: string, baseUrl: string): Promise<PrintedLabel> {
  const bottle = await findProjection(db, 'bottle', bottleId);
  if (!bottle) {
    const values = { kind: 'bottle', isAtVersion: false };
    throw unknownReference(impossible('unknown-reference', 'bottleIds', values));
  }
  const laboratory = await findLaboratory(db);
  const words = {
    units: paperUnitsOf(laboratory?.rules ?? DEFAULT_HOUSE_RULES),
    maker: (await findPerson(db, bottle.preparedBy))?.name ?? 'somebody',
    parents: await parentNames(db, bottle),
    dateText,
  };
  const label = withFigures(decimalMarkOf(laboratory?.settings ?? DEFAULT_SETTINGS), () =>
    labelOf(bottle, words),
  );
  return {
    label,
    link: bottleLink(baseUrl, bottle),
    laboratory: laboratory?.name ?? '',
    useByText: label.useBy === null ? null : `use by ${dateText(label.useBy)}`,
  };
}

async function parentNames(db: Knex, { parents }: BottleState): Promise<string[]> {
  const nameOf = async ({ kind, id }: Parent): Promise<string> =>
    kind === 'lot'
      ? `lot ${(await findProjection(db, 'lot', id))?.lot.lotNumber ?? '?'}`
      : `bottle ${(await findProjection(db, 'bottle', id))?.code ?? '?'}`;
  return Promise.all(parents.map(nameOf));
}
