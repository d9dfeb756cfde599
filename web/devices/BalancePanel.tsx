import { useEffect, useState } from 'react';
import type { Balance } from '#core/metrology';
import { Button, SmallButton } from '../ui/Button';
import type { BalanceReading } from './balance';
import { SimulatedBalance } from './simulatedBalance';

/** What a boat or a beaker weighs, g. */
const BOAT_G = 1.84;
const BEAKER_G = 96.4;

/** What hands move at once, as parts of the mass wanted. */
const SPOONFUL = 0.25;
const GRAINS = 0.02;
const TOO_MUCH = 0.05;

/** Above this target, a beaker is used, g. */
const LARGE_G = 20;

/**
 * The display of the balance that stands in for a real one, with what hands would do at it. A reading is taken only while it is
 * stable.
 */
export function BalancePanel({
  balance,
  targetG,
  onTake,
}: {
  readonly balance: Balance;
  readonly targetG: number;
  readonly onTake: (massG: string, from: string) => void;
}) {
  const [device] = useState(() => new SimulatedBalance(balance));
  const [reading, setReading] = useState<BalanceReading>(device.reading);
  const [refusal, setRefusal] = useState<string | null>(null);
  useEffect(() => device.subscribe(setReading), [device]);

  const handle = (action: () => void) => () => {
    setRefusal(null);
    action();
    setReading(device.reading);
  };
  const take = (): void => {
    const { massG, isStable } = device.reading;
    if (massG === null) setRefusal('It is overloaded: take something off.');
    else if (device.areDoorsOpen)
      setRefusal('Shut the doors first: the draught is on the display.');
    else if (!isStable) setRefusal('Wait until the display stands still.');
    else onTake(massG, device.name);
  };
  const vesselG = targetG > LARGE_G ? BEAKER_G : BOAT_G;
  return (
    <section
      aria-label="Balance"
      className="rounded-md border border-rule-strong bg-sheet px-4 pt-3 pb-3"
    >
      <div className="flex items-end justify-between gap-4">
        <p className="font-mono text-[40px] leading-none font-semibold" data-testid="balance">
          {reading.massG ?? 'overload'} <span className="text-xl font-normal">g</span>
        </p>
        <p className={`pb-1 text-[15px] ${reading.isStable ? 'text-leaf' : 'text-straw'}`}>
          <b>{reading.isStable ? 'stands still' : 'moving'}</b>, doors{' '}
          {device.areDoorsOpen ? 'open' : 'shut'}
        </p>
      </div>
      <div className="mt-3 flex flex-wrap gap-2">
        <SmallButton
          className="min-h-12 px-3 text-[15px]"
          onClick={handle(() => {
            device.load(vesselG);
          })}
        >
          {targetG > LARGE_G ? 'Beaker' : 'Boat'} on
        </SmallButton>
        <SmallButton className="min-h-12 px-3 text-[15px]" onClick={handle(device.tare)}>
          Tare
        </SmallButton>
        <SmallButton
          className="min-h-12 px-3 text-[15px]"
          onClick={handle(() => {
            device.load(SPOONFUL * targetG, 0.12);
          })}
        >
          A spoonful
        </SmallButton>
        <SmallButton
          className="min-h-12 px-3 text-[15px]"
          onClick={handle(() => {
            device.load(GRAINS * targetG, 0.5);
          })}
        >
          A few grains
        </SmallButton>
        <SmallButton
          className="min-h-12 px-3 text-[15px]"
          onClick={handle(() => {
            device.load(-TOO_MUCH * targetG, 0.2);
          })}
        >
          Take some off
        </SmallButton>
        <SmallButton
          className="min-h-12 px-3 text-[15px]"
          onClick={handle(() => {
            device.moveDoors(!device.areDoorsOpen);
          })}
        >
          {device.areDoorsOpen ? 'Shut the doors' : 'Open the doors'}
        </SmallButton>
        <Button className="ml-auto px-4" onClick={take}>
          Take reading
        </Button>
      </div>
      {refusal !== null && (
        <p role="alert" className="mt-2 font-semibold text-blush">
          {refusal}
        </p>
      )}
      <p className="mt-2 text-sm text-ink-soft">
        {device.name}: a stand-in for the demo. Typing works as well.
      </p>
    </section>
  );
}
