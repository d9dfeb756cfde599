import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useParams } from 'react-router';
import type { Label } from '#core/label';
import { bottleLink, LABEL_SHEETS, labelOf, sheetOf } from '#core/label';
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
    <div className="print:[&_header]:hidden">
      <Page
        title={`Label of bottle ${bottle.code}`}
        tabTitle={`Label ${bottle.code}`}
        lead="90 × 54 mm, shown larger here."
        actions={
          <>
            <ButtonLink to={`/bottles/${bottle.id}`}>To the bottle</ButtonLink>
            <PrintButton>Print this page</PrintButton>
          </>
        }
      >
        <div className="grid grid-cols-1 gap-8 xl:grid-cols-[610px_minmax(0,1fr)]">
          <div className="h-[220px] sm:h-[370px]">
            <LabelPreview label={label} link={bottleLink(window.location.origin, bottle)} />
          </div>
          <MakePdf bottle={bottle} />
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
          {label.useBy !== null && <p className="font-bold">use by {dateText(label.useBy)}</p>}
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
                alt="code for a camera, which leads to this bottle"
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

interface MakePdfProps {
  readonly bottle: BottleState;
}

/** Asks for which sheet, and makes the PDF; each one is on record. */
function MakePdf({ bottle }: MakePdfProps) {
  const { settings } = useSession().laboratory;
  const [sheet, setSheet] = useState(() => sheetOf(settings));
  const { typed, field } = useTyped({ first: '1', copies: '1' });
  const making = useMutation({
    mutationFn: async () => {
      const pdf = await askForFile('POST', '/labels', {
        bottleIds: Array.from({ length: countOf(typed.copies) }, () => bottle.id),
        sheet,
        startAt: countOf(typed.first) - 1,
      });
      saveFile(pdf, `label-${bottle.code}.pdf`);
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
      <LabelsMade bottle={bottle} />
    </Form>
  );
}

/** A number of labels as typed, 1 to 100. */
function countOf(text: string): number {
  return Math.max(1, Math.min(100, Math.floor(Number(text)) || 1));
}

/** The last labels of a bottle. */
function LabelsMade({ bottle: { labels } }: MakePdfProps) {
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
