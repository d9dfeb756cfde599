import type { Block, Row } from '../../document';
import { rowsOf, sectionOf } from '../../document';
import { excessRatioOfMethod, findSubstance, moleRatioOfMethod } from '../../chemistry';
import { decimalOf, figureText, roundHalfEven, roundSignificant } from '../../measurement';
import type { EquipmentState } from '../../metrology';
import type { BottleState, LotState } from '../../reagent';
import { knownMolarity, lotMolarMass, purityText } from '../../reagent';
import type { Certificate, RunState } from '../run';
import { standardizationOf } from '../run';
import { namedRecords } from '../setUp';
import type { DocumentContext } from './context';

export function methodSection(run: RunState, { indicator, catalogueVersion }: Certificate) {
  const { method } = standardizationOf(run).references;
  const excess = excessRatioOfMethod(method);
  return sectionOf('Method', [
    ...methodBlocks('Method', run, catalogueVersion),
    rowsOf([
      ['Ratio', `${ratioText(moleRatioOfMethod(method))} mol of titrant to 1 mol of standard`],
      [
        'Ratio of the excess',
        excess !== null && `${ratioText(excess)} mol of titrant to 1 mol of the reagent in excess`,
      ],
      ['End point', indicator],
    ]),
  ]);
}

/** What a run went by: its name under a heading, its version and source, and its reactions. */
export function methodBlocks(
  heading: string,
  { references: { method }, setUp }: RunState,
  catalogueVersion: string,
): readonly Block[] {
  const choice = setUp.method;
  return [
    rowsOf([
      [heading, method.name],
      [
        'Version',
        choice.kind === 'own'
          ? `${String(choice.version)} of the laboratory’s own`
          : `catalogue ${catalogueVersion}`,
      ],
      ['Source', method.source],
    ]),
    {
      kind: 'rows',
      rows: [
        {
          name: method.equations.length === 1 ? 'Reaction' : 'Reactions',
          value: { kind: 'reactions', equations: method.equations },
        },
      ],
    },
  ];
}

/** A mole ratio as it stands on paper. */
export function ratioText(ratio: number): string {
  return figureText(decimalOf(Number(roundSignificant(ratio, 4))));
}

/** What its molarity goes back to: the lot that was weighed, or the solution that was measured out. */
export function standardSection(run: RunState, context: DocumentContext) {
  const { standard, excess } = standardizationOf(run).references;
  return sectionOf('Standard', [
    rowsOf(
      standard.kind === 'lot'
        ? lotRows(standard.lot, context)
        : solutionRows('Standard', standard.bottle, context),
    ),
    excessRows(excess, context),
  ]);
}

function lotRows(
  { lot, certificates, drying }: LotState,
  { dateText, instantText }: DocumentContext,
): readonly Row[] {
  const substance = findSubstance(lot.substanceId, lot.own);
  const { valueGPerMol, standardUncertaintyGPerMol } = lotMolarMass(lot);
  const files = certificates.map(({ name }) => name).join(', ');
  const dried = drying.at(-1);
  const source = lot.statedMolarMass
    ? 'as its maker states it'
    : 'from its formula and the standard atomic weights';
  return [
    ['Substance', substance?.name ?? lot.substanceId],
    ['Lot', [lot.lotNumber, lot.supplier].filter((one) => one !== '').join(', ')],
    ['Purity', purityText(lot)],
    [
      'Certificate of the lot',
      [lot.certificateNumber ?? '', files].filter((one) => one !== '').join(', '),
    ],
    [
      'Traceability',
      files === ''
        ? 'The purity is the maker’s assay; the lot is not used as a certified reference material.'
        : 'Through the certificate of the lot that is on file, as far as it states traceability to the SI.',
    ],
    [
      'Molar mass',
      `${figureText(roundHalfEven(valueGPerMol, 4))} g/mol, u = ${figureText(roundSignificant(standardUncertaintyGPerMol, 2))} g/mol, ${source}`,
    ],
    [
      'Dried',
      dried &&
        `at ${figureText(dried.temperatureC)} °C from ${instantText(dried.putIn.at)}${dried.takenOut ? ` to ${instantText(dried.takenOut.at)}` : ''}`,
    ],
    ['Use by', lot.useBy && dateText(lot.useBy)],
  ];
}

export function solutionRows(
  name: string,
  bottle: BottleState,
  { dateText }: DocumentContext,
): readonly Row[] {
  const known = knownMolarity(bottle);
  return [
    [
      name,
      `${findSubstance(bottle.substanceId, bottle.own)?.name ?? bottle.substanceId}, bottle ${bottle.code}`,
    ],
    [
      'Its molarity',
      known &&
        `${figureText(known.molarity)} ± ${figureText(known.expandedUncertainty)} mol/L (k = ${figureText(known.coverageFactor)})`,
    ],
    [
      'Known from',
      known &&
        `${known.certificateNumber === null ? 'how it was made' : `certificate ${known.certificateNumber}`}, ${dateText(known.since)}${known.until === null ? '' : `, valid to ${dateText(known.until)}`}`,
    ],
    [
      'Traceability',
      known?.certificateNumber ? `Through certificate ${known.certificateNumber}.` : null,
    ],
  ];
}

/** What was added in excess and titrated back, where anything was. */
export function excessRows(
  excess: RunState['references']['excess'],
  context: DocumentContext,
): Block {
  return rowsOf(excess ? solutionRows('Added in excess', excess.bottle, context) : []);
}

const KINDS = {
  balance: 'Balance',
  burette: 'Burette',
  glassware: 'Glassware',
  thermometer: 'Thermometer',
  heater: 'Heater',
} as const;

/** What it was measured with, and how that is calibrated. */
export function equipmentSection({ setUp }: RunState, { equipment, dateText }: DocumentContext) {
  const named = namedRecords(setUp).flatMap(({ kind, at }) =>
    kind === 'equipment' ? [at.id] : [],
  );
  const used = equipment.filter(({ id }) => named.includes(id));
  return sectionOf('Measured with', [
    {
      kind: 'table',
      heads: ['Equipment', 'Name', 'Calibration', 'Due'],
      rows: used.map((one) => [
        KINDS[one.equipment.type],
        one.equipment.name,
        calibrationText(one, dateText),
        one.equipment.calibrationDue ? dateText(one.equipment.calibrationDue) : 'no date',
      ]),
    },
  ]);
}

function calibrationText(
  { calibrations }: EquipmentState,
  dateText: DocumentContext['dateText'],
): string {
  const last = calibrations.at(-1);
  return last ? `${last.certificate}, ${dateText(last.calibratedOn)}` : 'by its specification';
}
