import { useMutation, useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { useState } from 'react';
import { useParams } from 'react-router';
import type { Label } from '#core/label';
import { bottleLink, LABEL_SHEETS, labelOf, labelOfSample, sampleLink, sheetOf } from '#core/label';
import type { Id } from '#core/grammar';
import { paperUnitsOf } from '#core/laboratory';
import type { BottleState } from '#core/reagent';
import { Loading } from '../app/Loading';
import { askForFile } from '../app/api';
import { usePersonName, useRecord } from '../app/records';
import { NotFound } from '../app/RouteError';
import { useSession } from '../app/session';
import { Button, ButtonLink, PrintButton } from '../ui/Button';
import { saveFile } from '../ui/files';
import { SelectField, TextField } from '../ui/fields';
import { Form } from '../ui/Form';
import { FormError } from '../ui/FormError';
import { Page } from '../ui/Page';
import { Pictogram } from '../ui/Pictogram';
import { ChemicalFormula, dateText, instantText } from '../ui/typeset';
import { useTyped } from '../ui/useTyped';
import { SheetFields } from './SheetFields';

/** The label of a bottle: as it will look, and the PDF of it for a sheet or a single label. */
export function LabelPage() {
  const { bottleId = '' } = useParams();
  const found = useRecord('bottle', bottleId);
  const nameOf = usePersonName();
  const { laboratory } = useSession();
  if (found === undefined) return <Loading />;
  if (found === null) return <NotFound />;
  const { record: bottle, names } = found;
  const label = labelOf(bottle, {
    units: paperUnitsOf(laboratory.rules),
    maker: nameOf(bottle.preparedBy),
    parents: bottle.parents.map(({ kind, id }) => `${kind} ${names[id] ?? '…'}`),
    dateText,
  });
  return (
    <LabelView
      title={`Label of bottle ${bottle.code}`}
      label={label}
      link={bottleLink(window.location.origin, bottle)}
      of={{ bottleIds: bottle.id }}
      back={<ButtonLink to={`/bottles/${bottle.id}`}>To the bottle</ButtonLink>}
    >
      <LabelsMade bottle={bottle} />
    </LabelView>
  );
}

/** The label of a sample. */
export function SampleLabelPage() {
  const { sampleId = '' } = useParams();
  const found = useRecord('sample', sampleId);
  if (found === undefined) return <Loading />;
  if (found === null) return <NotFound />;
  const { record } = found;
  return (
    <LabelView
      title={`Label of sample ${record.sample.code}`}
      label={labelOfSample(record, { dateText })}
      link={sampleLink(window.location.origin, record)}
      of={{ sampleIds: record.id }}
      back={<ButtonLink to={`/samples/${record.id}`}>To the sample</ButtonLink>}
    />
  );
}

/** Which record a label is of, as it is asked for. */
type LabelOf = { readonly bottleIds: Id } | { readonly sampleIds: Id };

interface LabelViewProps {
  readonly title: string;
  readonly label: Label;
  readonly link: string;
  readonly of: LabelOf;
  readonly back: ReactNode;
  /** What was made before. */
  readonly children?: ReactNode;
}

function LabelView({ title, label, link, of, back, children }: LabelViewProps) {
  return (
    <div className="print:[&_header]:hidden">
      <Page
        title={title}
        tabTitle={`Label ${label.code}`}
        lead="90 × 54 mm, shown larger here."
        actions={
          <>
            {back}
            <PrintButton>Print this page</PrintButton>
          </>
        }
      >
        <div className="grid grid-cols-1 gap-8 xl:grid-cols-[610px_minmax(0,1fr)]">
          <div className="h-[220px] sm:h-[370px]">
            <LabelPreview label={label} link={link} />
          </div>
          <MakePdf of={of} code={label.code}>
            {children}
          </MakePdf>
        </div>
      </Page>
    </div>
  );
}

/** The code that a camera reads, as a picture; undefined while it is drawn. */
function useCode(link: string): string | undefined {
  const { data } = useQuery({
    queryKey: ['code', link],
    // Drawn here: the network has no part in it.
    networkMode: 'always',
    staleTime: Infinity,
    queryFn: async () => {
      const { toString } = await import('qrcode');
      return toString(link, { type: 'svg', margin: 0, errorCorrectionLevel: 'M' });
    },
  });
  return data && `data:image/svg+xml,${encodeURIComponent(data)}`;
}

interface LabelPreviewProps {
  readonly label: Label;
  readonly link: string;
}

/** The label as it is printed. */
function LabelPreview({ label, link }: LabelPreviewProps) {
  const code = useCode(link);
  const { laboratory } = useSession();
  const { signal, pictograms, statements, precautions } = label.hazards;
  return (
    <div data-cut="scrolls sideways" className="max-sm:overflow-x-auto">
      <article className="flex h-[54mm] w-[90mm] origin-top-left gap-[2mm] border border-ink bg-white p-[2.5mm] text-[2.5mm] leading-tight text-black sm:scale-[1.75] print:scale-100">
        <div className="flex min-w-0 flex-1 flex-col">
          <p className="text-[4.2mm] font-bold">
            {label.formula !== null && <ChemicalFormula of={label.formula} />}{' '}
            <span className="text-[2.9mm]">{label.name}</span>
          </p>
          {label.molarity !== null && (
            <p className="mt-[0.8mm] text-[3.4mm] font-semibold">{label.molarity}</p>
          )}
          {label.warning !== null && (
            <p className="text-[3.1mm] font-bold uppercase">{label.warning}</p>
          )}
          {label.lines.map((line) => (
            <p key={line} className="mt-[0.3mm]">
              {line}
            </p>
          ))}
          {label.lastDay !== null && (
            <p className="font-bold">
              {label.lastDay.says} {dateText(label.lastDay.on)}
            </p>
          )}
          <p className="mt-[1mm] text-[2.1mm]">
            {signal !== null && <b>{signal}. </b>}
            {statements.map(({ code, text }) => `${code} ${text}.`).join(' ')}{' '}
            {precautions.map(({ code }) => code).join(', ')}
          </p>
          <p className="mt-auto text-[2mm]">{laboratory.name}</p>
        </div>
        <div className="w-[19mm] shrink-0">
          <p className="text-right font-mono text-[4.6mm] font-bold">{label.code}</p>
          <div className="my-[1mm] ml-auto size-[16mm]">
            {code !== undefined && (
              <img
                className="size-full"
                alt="code for a camera, which leads to its page"
                src={code}
              />
            )}
          </div>
          <p className="flex flex-wrap justify-end gap-[0.4mm]">
            {pictograms.map((pictogram) => (
              <Pictogram key={pictogram} of={pictogram} className="size-[9mm]" />
            ))}
          </p>
        </div>
      </article>
    </div>
  );
}

/** Asks for which sheet, and makes the PDF; each one is on record. */
function MakePdf({
  of,
  code,
  children,
}: {
  readonly of: LabelOf;
  readonly code: string;
  readonly children: ReactNode;
}) {
  const { settings } = useSession().laboratory;
  const [sheet, setSheet] = useState(() => sheetOf(settings));
  const { typed, field } = useTyped({ first: '1', copies: '1' });
  const making = useMutation({
    mutationFn: async () => {
      const pdf = await askForFile('POST', '/labels', {
        ...copiesOf(of, countOf(typed.copies)),
        sheet,
        startAt: countOf(typed.first) - 1,
      });
      saveFile(pdf, `label-${code}.pdf`);
    },
  });
  return (
    <Form
      aria-label="Make the PDF"
      className="flex flex-col gap-4 print:hidden"
      onSubmit={making.mutate}
    >
      <SelectField
        label="On"
        value={LABEL_SHEETS.some(({ name }) => name === sheet.name) ? sheet.name : ''}
        options={[
          ...LABEL_SHEETS.map(({ name }) => [name, name] as const),
          ['', 'another sheet, by its millimetres'],
        ]}
        onText={(text) => {
          const chosen = LABEL_SHEETS.find(({ name }) => name === text);
          setSheet(chosen ?? { ...sheet, name: 'a sheet of our own' });
        }}
      />
      {!LABEL_SHEETS.includes(sheet) && <SheetFields sheet={sheet} onChange={setSheet} />}
      <div className="grid grid-cols-1 gap-4 md:grid-cols-2">
        <TextField label="Begin at label" type="number" min={1} {...field('first')} />
        <TextField label="Copies" type="number" min={1} {...field('copies')} />
      </div>
      <Button type="submit" look="primary" disabled={making.isPending}>
        Make the PDF
      </Button>
      <FormError message={making.error?.message} />
      {children}
    </Form>
  );
}

function copiesOf(of: LabelOf, copies: number): Readonly<Record<string, readonly Id[]>> {
  return Object.fromEntries(
    Object.entries(of).map(([ids, id]) => [ids, Array.from({ length: copies }, () => id)]),
  );
}

/** A number of labels as typed, 1 to 100. */
function countOf(text: string): number {
  return Math.max(1, Math.min(100, Math.floor(Number(text)) || 1));
}

/** The last labels of a bottle. */
function LabelsMade({ bottle: { labels } }: { readonly bottle: BottleState }) {
  const { laboratory } = useSession();
  const nameOf = usePersonName();
  return (
    <section className="text-[15px] text-ink-soft">
      {labels.length === 0 ? (
        <p>No label has been made yet.</p>
      ) : (
        <>
          <h2 className="font-bold text-ink">Labels made: {labels.length}</h2>
          <ul>
            {labels
              .slice(-4)
              .toReversed()
              .map(({ factId, by, at, sheet: name }) => (
                <li key={factId}>
                  {instantText(at, laboratory.timeZone)}, {nameOf(by)}: {name}
                </li>
              ))}
          </ul>
        </>
      )}
    </section>
  );
}
