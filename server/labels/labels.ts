import { impossible } from '#core/record';
import type { Knex } from 'knex';
import type { Label } from '#core/label';
import { bottleLink, labelOf, labelOfSample, sampleLink } from '#core/label';
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
import type { AppError } from '../http/appError';
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
 * Labels of bottles and samples as a PDF; the record of each says that one was made, so that a second label is known to be one.
 *
 * @throws AppError `unknown-reference` for a bottle or sample that is not there; then no label is made.
 */
export async function makeLabels(
  { services, printer }: { readonly services: Services; readonly printer: Printer },
  person: PersonState,
  { bottleIds, sampleIds, sheet, startAt }: LabelsRequest,
  baseUrl: string,
): Promise<Buffer> {
  refuseUnlessMay(authorOf(person), 'enter');
  const labels: PrintedLabel[] = [];
  for (const id of bottleIds) labels.push(await bottleLabel(services.db, id, baseUrl));
  for (const id of sampleIds) labels.push(await sampleLabel(services.db, id, baseUrl));
  const pdf = await printer.print(person.id, { kind: 'labels', labels, sheet, startAt });
  const labelled = [
    ...[...new Set(bottleIds)].map((id) => ({ id, kind: 'bottle' as const })),
    ...[...new Set(sampleIds)].map((id) => ({ id, kind: 'sample' as const })),
  ];
  await durably(services.db, async (tx) => {
    const inside = { ...services, db: tx };
    const opened = await lockAndOpen(inside, labelled);
    const facts = labelled.map(({ id, kind }) =>
      makeServerFact(services, person.id, {
        ...{ recordId: id, recordKind: kind, kind: `${kind}.labelled` as const },
        body: { sheet: sheet.name },
      }),
    );
    await storeNext(inside, authorOf(person), facts, opened);
  });
  return pdf;
}

async function bottleLabel(db: Knex, bottleId: string, baseUrl: string): Promise<PrintedLabel> {
  const bottle = await findProjection(db, 'bottle', bottleId);
  if (!bottle) throw notThere('bottle');
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
  return printed(label, bottleLink(baseUrl, bottle), laboratory);
}

async function sampleLabel(db: Knex, sampleId: string, baseUrl: string): Promise<PrintedLabel> {
  const sample = await findProjection(db, 'sample', sampleId);
  if (!sample) throw notThere('sample');
  const label = labelOfSample(sample, { dateText });
  return printed(label, sampleLink(baseUrl, sample), await findLaboratory(db));
}

function notThere(kind: 'bottle' | 'sample'): AppError {
  const values = { kind, isAtVersion: false };
  return unknownReference(impossible('unknown-reference', `${kind}Ids`, values));
}

function printed(
  label: Label,
  link: string,
  laboratory: { readonly name: string } | undefined | null,
): PrintedLabel {
  const { lastDay } = label;
  return {
    ...{ label, link, laboratory: laboratory?.name ?? '' },
    lastDayText: lastDay && `${lastDay.says} ${dateText(lastDay.on)}`,
  };
}

async function parentNames(db: Knex, { parents }: BottleState): Promise<string[]> {
  const nameOf = async ({ kind, id }: Parent): Promise<string> =>
    kind === 'lot'
      ? `lot ${(await findProjection(db, 'lot', id))?.lot.lotNumber ?? '?'}`
      : `bottle ${(await findProjection(db, 'bottle', id))?.code ?? '?'}`;
  return Promise.all(parents.map(nameOf));
}
