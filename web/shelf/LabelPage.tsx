import { useState } from 'react';
import { useParams } from 'react-router';
import type { Label, LabelSheet } from '#core/label';
import { LABEL_SHEETS, labelOf, PICTOGRAM_NAMES, pictogramSvg } from '#core/label';
import { paperUnitsOf } from '#core/laboratory';
import type { BottleState } from '#core/reagent';
import { Loading } from '../app/Loading';
import { askForFile } from '../app/api';
import { usePersonName, useRecord } from '../app/records';
import { NotFound } from '../app/RouteError';
import { useSession } from '../app/session';
import { Button, ButtonLink } from '../ui/Button';
import { saveFile } from '../ui/files';
import { SelectField, TextField } from '../ui/fields';
import { FormError } from '../ui/FormError';
import { Page } from '../ui/Page';
import { ChemicalFormula, dateText, instantText } from '../ui/typeset';
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
            <Button
              onClick={() => {
                window.print();
              }}
            >
              Print this page
            </Button>
          </>
        }
      >
        <div className="grid grid-cols-1 gap-8 xl:grid-cols-[610px_minmax(0,1fr)]">
          <div className="h-[220px] sm:h-[370px]">
            <LabelPreview label={label} />
          </div>
          <MakePdf bottle={bottle} />
        </div>
      </Page>
    </div>
  );
}

/** The label as it is printed, without the code that a camera reads. */
function LabelPreview({ label }: { readonly label: Label }) {
  const { laboratory } = useSession();
  const { signal, pictograms, statements } = label.hazards;
  return (
    <article className="flex h-[54mm] w-[90mm] origin-top-left scale-[1.03] gap-[2mm] border border-ink bg-white p-[2.5mm] text-[2.5mm] leading-tight text-black sm:scale-[1.75] print:scale-100">
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
          {statements.map(({ code, text }) => `${code} ${text}.`).join(' ')}
        </p>
        <p className="mt-auto text-[2mm]">{laboratory.name}</p>
      </div>
      <div className="w-[19mm] shrink-0">
        <p className="text-right font-mono text-[4.6mm] font-bold">{label.code}</p>
        <p className="my-[1mm] ml-auto flex size-[16mm] items-center justify-center border border-dashed border-black text-center text-[2mm]">
          code for a camera
        </p>
        <p className="flex flex-wrap justify-end gap-[0.4mm]">
          {pictograms.map((pictogram) => (
            <img
              key={pictogram}
              className="size-[9mm]"
              alt={PICTOGRAM_NAMES[pictogram]}
              src={`data:image/svg+xml,${encodeURIComponent(pictogramSvg(pictogram))}`}
            />
          ))}
        </p>
      </div>
    </article>
  );
}

/** Asks for which sheet, and makes the PDF; each one is on record. */
function MakePdf({ bottle }: { readonly bottle: BottleState }) {
  const { laboratory } = useSession();
  const nameOf = usePersonName();
  const [sheet, setSheet] = useState<LabelSheet | undefined>(LABEL_SHEETS[0]);
  const [first, setFirst] = useState('1');
  const [copies, setCopies] = useState('1');
  const [failure, setFailure] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  if (!sheet) return null;
  const count = (text: string): number => Math.max(1, Math.min(100, Math.floor(Number(text)) || 1));
  const make = async (): Promise<void> => {
    setBusy(true);
    setFailure(null);
    try {
      const pdf = await askForFile('POST', '/labels', {
        bottleIds: Array.from({ length: count(copies) }, () => bottle.id),
        sheet,
        startAt: count(first) - 1,
      });
      saveFile(pdf, `label-${bottle.code}.pdf`);
    } catch (error) {
      setFailure(error instanceof Error ? error.message : 'The label could not be made.');
    } finally {
      setBusy(false);
    }
  };
  return (
    <form
      aria-label="Make the PDF"
      className="flex flex-col gap-4 print:hidden"
      onSubmit={(event) => {
        event.preventDefault();
        void make();
      }}
    >
      <SelectField
        label="On"
        value={LABEL_SHEETS.some(({ name }) => name === sheet.name) ? sheet.name : ''}
        onChange={(event) => {
          const chosen = LABEL_SHEETS.find(({ name }) => name === event.target.value);
          setSheet(chosen ?? { ...sheet, name: 'a sheet of our own' });
        }}
      >
        {LABEL_SHEETS.map(({ name }) => (
          <option key={name} value={name}>
            {name}
          </option>
        ))}
        <option value="">another sheet, by its millimetres</option>
      </SelectField>
      {!LABEL_SHEETS.includes(sheet) && <SheetFields sheet={sheet} onChange={setSheet} />}
      <div className="grid grid-cols-1 gap-4 md:grid-cols-2">
        <TextField label="Begin at label" type="number" min={1} value={first} onText={setFirst} />
        <TextField label="Copies" type="number" min={1} value={copies} onText={setCopies} />
      </div>
      <Button type="submit" look="primary" disabled={isBusy}>
        Make the PDF
      </Button>
      <FormError message={failure ?? undefined} />
      <section className="text-[15px] text-ink-soft">
        {bottle.labels.length === 0 ? (
          <p>No label has been made yet.</p>
        ) : (
          <>
            <h2 className="font-bold text-ink">Labels made: {bottle.labels.length}</h2>
            <ul>
              {bottle.labels
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
    </form>
  );
}
