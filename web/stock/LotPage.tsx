import { useMutation } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { useRef, useState } from 'react';
import { useParams } from 'react-router';
import { findSubstance } from '#core/chemistry';
import { hazardsOfLot } from '#core/label';
import { parseDecimal, roundSignificant } from '#core/measurement';
import type { LotState } from '#core/reagent';
import { dryness, lotMolarity, lotMolarMass } from '#core/reagent';
import { may } from '#core/rights';
import type { NewFact } from '#contract';
import { sendFile } from '../app/api';
import { Loading } from '../app/Loading';
import { useAddToRecord } from '../app/entering';
import { usePersonName, useRecord } from '../app/records';
import { NotFound } from '../app/RouteError';
import { useSession } from '../app/session';
import { useNow } from '../app/useNow';
import { Button, ButtonLink } from '../ui/Button';
import { Cautions } from '../ui/Cautions';
import { CorrectionList } from '../ui/CorrectionList';
import { Dialog } from '../ui/Dialog';
import { Facts } from '../ui/Facts';
import { QuantityField, TextAreaField } from '../ui/fields';
import { FormError } from '../ui/FormError';
import { HazardMarks } from '../ui/HazardMarks';
import { Page } from '../ui/Page';
import { capitalized, ChemicalFormula, clockText, dateText, instantText } from '../ui/typeset';
import { UseSwitch } from '../app/UseSwitch';
import { useReadAnew } from '../app/useReadAnew';
import { LotForm } from './LotForm';
import { leftText } from './wording';

/** One lot: what its certificate says, what is left, the drying log, the certificate itself. */
export function LotPage() {
  const { lotId = '' } = useParams();
  const found = useRecord('lot', lotId);
  if (found === undefined) return <Loading />;
  if (found === null) return <NotFound />;
  return <LotView key={lotId} state={found.record} left={found.left} />;
}

function LotView({ state, left }: { readonly state: LotState; readonly left: number | undefined }) {
  const { laboratory, person, today } = useSession();
  const nameOf = usePersonName();
  const [isCorrecting, setCorrecting] = useState(false);
  const { lot } = state;
  const substance = findSubstance(lot.substanceId);
  const add = useAddToRecord();
  const molarMass = lotMolarMass(lot).valueGPerMol;
  const molarity = lotMolarity(lot);
  return (
    <Page
      title={`Lot ${lot.lotNumber}`}
      tabTitle={`Lot ${lot.lotNumber}`}
      lead={
        <>
          {capitalized(substance?.name ?? '')} <ChemicalFormula of={substance?.formula ?? ''} />,{' '}
          {lot.supplier}
        </>
      }
      actions={
        <>
          <ButtonLink to="/lots">All lots</ButtonLink>
          {may(person, 'register') && (
            <Button
              onClick={() => {
                setCorrecting(true);
              }}
            >
              Correct it…
            </Button>
          )}
          {lot.openedOn === null && (
            <Button
              onClick={() => {
                add.mutate({
                  recordId: state.id,
                  basedOn: state.version,
                  fact: { kind: 'lot.opened', body: { openedOn: today } },
                });
              }}
            >
              It is opened today
            </Button>
          )}
        </>
      }
    >
      {isCorrecting && (
        <LotForm
          corrects={state}
          onDone={() => {
            setCorrecting(false);
          }}
        />
      )}
      <div className="grid grid-cols-1 gap-10 md:grid-cols-2 xl:grid-cols-3">
        <section>
          <h2 className="mb-2 text-lg font-bold">As received</h2>
          <Facts
            rows={[
              ['Form', lot.dissolved ? 'solution' : (substance?.form ?? '')],
              [
                lot.dissolved ? 'Content' : 'Purity',
                <span key="p" className="font-mono">
                  {lot.purity} ± {lot.purityHalfWidth}
                  {lot.dissolved?.meaning === 'by-volume' ? ' g/mL' : ''}
                </span>,
              ],
              ...(molarity === null
                ? []
                : ([['That is', `${roundSignificant(molarity, 3)} mol/L`]] as const)),
              [
                'Molar mass',
                <span key="m" className="font-mono">
                  {roundSignificant(molarMass, 7)} g/mol
                </span>,
              ],
              ['Received', dateText(lot.receivedOn)],
              ['Opened', lot.openedOn === null ? 'not yet' : dateText(lot.openedOn)],
              ['Use by', lot.useBy === null ? 'none' : dateText(lot.useBy)],
              ['Store', lot.store === '' ? '–' : lot.store],
              ['Left', <b key="l">{leftText(lot, left)}</b>],
            ]}
          />
          <div className="mt-4 flex flex-wrap gap-3">
            <CountButton state={state} />
            <UseSwitch
              kind="lot"
              id={state.id}
              version={state.version}
              withdrawn={state.withdrawn}
            />
          </div>
        </section>
        <section className="flex flex-col gap-8">
          {!lot.dissolved && <DryingLog state={state} />}
          <Certificates state={state} />
          <CorrectionList
            corrections={state.corrections}
            nameOf={nameOf}
            timeZone={laboratory.timeZone}
          />
        </section>
        <aside className="flex flex-col gap-4">
          <Cautions cautions={substance?.cautions ?? []} />
          <HazardMarks
            of={lot.dissolved ? 'The solution' : 'As received'}
            hazards={hazardsOfLot(lot)}
          />
        </aside>
      </div>
    </Page>
  );
}

/** Put in, taken out, and whether it is dry enough to be weighed. */
function DryingLog({ state }: { readonly state: LotState }) {
  const { laboratory } = useSession();
  const nameOf = usePersonName();
  const now = useNow(20_000);
  const add = useAddToRecord();
  const substance = findSubstance(state.lot.substanceId);
  const drying = substance?.drying ?? null;
  const [temperature, setTemperature] = useState(
    drying?.kind === 'oven' ? String(drying.temperatureC[0]) : '',
  );
  const verdict = dryness(drying, state.drying, now);
  const last = state.drying.at(-1);
  const isIn = last?.takenOut === null;
  const enter = (fact: NewFact): void => {
    add.mutate({ recordId: state.id, basedOn: state.version, fact });
  };
  const at = (instant: string): string => instantText(instant, laboratory.timeZone);
  return (
    <section aria-label="Drying log">
      <h2 className="mb-2 text-lg font-bold">Dry enough?</h2>
      <p
        className={`border-l-4 px-3 py-1 ${verdict.verdict === 'dry' || verdict.verdict === 'no-oven' ? 'border-leaf bg-leaf-wash' : 'border-straw bg-straw-wash'}`}
      >
        {verdict.sentence}
        {verdict.weighableFrom !== null &&
          verdict.verdict !== 'dry' &&
          ` It may be weighed from ${clockText(verdict.weighableFrom, now, laboratory.timeZone)}.`}
      </p>
      {drying?.kind === 'oven' &&
        (isIn ? (
          <Button
            look="primary"
            className="mt-3"
            onClick={() => {
              enter({ kind: 'lot.taken-out', body: {} });
            }}
          >
            Taken out of the oven
          </Button>
        ) : (
          <form
            className="mt-3 flex items-end gap-3"
            onSubmit={(event) => {
              event.preventDefault();
              enter({
                kind: 'lot.put-to-dry',
                body: { temperatureC: parseDecimal(temperature) ?? temperature },
              });
            }}
          >
            <div className="w-36">
              <QuantityField
                label="Oven at"
                unit="°C"
                value={temperature}
                onText={setTemperature}
              />
            </div>
            <Button type="submit">Put in to dry</Button>
          </form>
        ))}
      <FormError message={add.error?.message} />
      <ol className="mt-3 text-[15px] text-ink-soft">
        {state.drying.toReversed().map(({ putIn, takenOut, temperatureC }) => (
          <li key={putIn.factId}>
            {temperatureC} °C: in {at(putIn.at)}, {nameOf(putIn.by)};{' '}
            {takenOut ? `out ${at(takenOut.at)}, ${nameOf(takenOut.by)}` : 'still in'}
          </li>
        ))}
      </ol>
    </section>
  );
}

/** The certificates as files, and attaching another. */
function Certificates({ state }: { readonly state: LotState }) {
  const readAnew = useReadAnew();
  const input = useRef<HTMLInputElement>(null);
  const sending = useMutation({
    mutationFn: async (file: File) => {
      await sendFile(`/lots/${state.id}/certificates`, file);
      await readAnew();
    },
  });
  return (
    <section aria-label="Certificates">
      <h2 className="mb-2 text-lg font-bold">Certificate</h2>
      {state.certificates.length === 0 && (
        <p className="text-ink-soft">None attached: a PDF, or a picture as PNG or JPEG.</p>
      )}
      <ul>
        {state.certificates.map(({ fileId, name, sizeBytes }) => (
          <li key={fileId}>
            <a
              href={`/api/files/${fileId}`}
              className="font-semibold text-violet underline"
              download
            >
              {name}
            </a>{' '}
            <span className="text-ink-soft">{Math.ceil(sizeBytes / 1024)} kB</span>
          </li>
        ))}
      </ul>
      <input
        ref={input}
        type="file"
        aria-label="Certificate file"
        accept="application/pdf,image/png,image/jpeg"
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) sending.mutate(file);
          event.target.value = '';
        }}
      />
      <Button
        className="mt-3"
        onClick={() => {
          input.current?.click();
        }}
      >
        Attach a file…
      </Button>
      <FormError message={sending.error?.message} />
    </section>
  );
}

/** Counts what is there, which takes the place of what was reckoned. */
function CountButton({ state }: { readonly state: LotState }): ReactNode {
  const add = useAddToRecord();
  const [isAsking, setAsking] = useState(false);
  const [amount, setAmount] = useState('');
  const [reason, setReason] = useState('');
  const close = (): void => {
    setAsking(false);
  };
  return (
    <>
      <Button
        className="px-4 text-[15px]"
        onClick={() => {
          setAsking(true);
        }}
      >
        Count it…
      </Button>
      {isAsking && (
        <Dialog
          title="How much is there?"
          description={<p>What is taken from now on is reckoned from this.</p>}
          onClose={close}
        >
          <form
            noValidate
            className="flex flex-col gap-4"
            onSubmit={(event) => {
              event.preventDefault();
              const body = { amountLeft: parseDecimal(amount) ?? amount, reason };
              add.mutate(
                { recordId: state.id, basedOn: state.version, fact: { kind: 'lot.counted', body } },
                { onSuccess: close },
              );
            }}
          >
            <QuantityField
              label="There is"
              unit={state.lot.dissolved ? 'mL' : 'g'}
              value={amount}
              onText={setAmount}
            />
            <TextAreaField label="Why it is counted" value={reason} onText={setReason} />
            <FormError message={add.error?.message} />
            <div className="flex gap-3">
              <Button type="submit" look="primary">
                Write it down
              </Button>
              <Button onClick={close}>Leave it</Button>
            </div>
          </form>
        </Dialog>
      )}
    </>
  );
}
