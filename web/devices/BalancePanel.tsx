import { figureText } from '#core/measurement';
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

interface BalancePanelProps {
  readonly balance: Balance;
  readonly targetG: number;
  readonly onTake: (massG: string, from: string) => void;
}

/**
 * The display of the balance that stands in for a real one, with what hands would do at it. A reading is taken only while it is
 * stable.
 */
export function BalancePanel({ balance, targetG, onTake }: BalancePanelProps) {
  const [device] = useState(() => new SimulatedBalance(balance));
  const [reading, setReading] = useState<BalanceReading>(device.reading);
  const [refusal, setRefusal] = useState<string | null>(null);
  useEffect(() => device.subscribe(setReading), [device]);
  return (
    <section
      aria-label="Balance"
      className="rounded-md border border-rule-strong bg-sheet px-4 pt-3 pb-3"
    >
      <Display reading={reading} areDoorsOpen={device.areDoorsOpen} />
      <div className="mt-3 flex flex-wrap gap-2">
        {handsAt(device, targetG).map(([name, move]) => (
          <SmallButton
            key={name}
            className="min-h-12 px-3 text-[15px]"
            onClick={() => {
              setRefusal(null);
              move();
              setReading(device.reading);
            }}
          >
            {name}
          </SmallButton>
        ))}
        <Button
          className="ml-auto"
          onClick={() => {
            const { massG } = device.reading;
            const against = againstTaking(device);
            setRefusal(against);
            if (against === null && massG !== null) onTake(massG, device.name);
          }}
        >
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

function Display({
  reading,
  areDoorsOpen,
}: {
  readonly reading: BalanceReading;
  readonly areDoorsOpen: boolean;
}) {
  return (
    <div className="flex items-end justify-between gap-4">
      <p className="font-mono text-[40px] leading-none font-semibold" data-testid="balance">
        {figureText(reading.massG ?? 'overload')} <span className="text-xl font-normal">g</span>
      </p>
      <p className={`pb-1 text-[15px] ${reading.isStable ? 'text-leaf' : 'text-straw'}`}>
        <b>{reading.isStable ? 'stands still' : 'moving'}</b>, doors{' '}
        {areDoorsOpen ? 'open' : 'shut'}
      </p>
    </div>
  );
}

/** What hands do at a balance. */
function handsAt(
  device: SimulatedBalance,
  targetG: number,
): readonly (readonly [name: string, move: () => void])[] {
  const isLarge = targetG > LARGE_G;
  const load = (massG: number, spread?: number) => (): void => {
    device.load(massG, spread);
  };
  return [
    [isLarge ? 'Beaker on' : 'Boat on', load(isLarge ? BEAKER_G : BOAT_G)],
    ['Tare', device.tare],
    ['A spoonful', load(SPOONFUL * targetG, 0.12)],
    ['A few grains', load(GRAINS * targetG, 0.5)],
    ['Take some off', load(-TOO_MUCH * targetG, 0.2)],
    [
      device.areDoorsOpen ? 'Shut the doors' : 'Open the doors',
      () => {
        device.moveDoors(!device.areDoorsOpen);
      },
    ],
  ];
}

/** Why a reading cannot be taken now; null when it can. */
function againstTaking({ reading, areDoorsOpen }: SimulatedBalance): string | null {
  if (reading.massG === null) return 'It is overloaded: take something off.';
  if (areDoorsOpen) return 'Shut the doors first: the draught is on the display.';
  return reading.isStable ? null : 'Wait until the display stands still.';
}
