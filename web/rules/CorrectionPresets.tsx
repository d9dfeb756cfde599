import type { HouseRules } from '#core/laboratory';
import { CORRECTION_PRESETS, isCorrectionUnsaid } from '#core/laboratory';
import { may } from '#core/rights';
import { useSession } from '../app/session';
import { Button, ButtonLink } from '../ui/Button';
import type { TypedRule } from './RuleControl';

interface CorrectionPresetsProps {
  readonly typed: Readonly<Record<keyof HouseRules, TypedRule>>;
  readonly onChoose: (rules: (typeof CORRECTION_PRESETS)[keyof typeof CORRECTION_PRESETS]) => void;
}

const PRESETS = [
  {
    key: 'corrected',
    name: 'Corrected',
    what: 'Figures hold at the reference temperature, and for masses. What was measured stands beside them.',
  },
  {
    key: 'plain',
    name: 'Plain',
    what: 'Figures are as a calculator gives them. What is not corrected is shown with its size and carried in U.',
  },
] as const;

/** Both corrections at once, one way or the other. */
export function CorrectionPresets({ typed, onChoose }: CorrectionPresetsProps) {
  return (
    <div className="mb-3 flex flex-col gap-2">
      {PRESETS.map(({ key, name, what }) => {
        const preset = CORRECTION_PRESETS[key];
        const isChosen =
          typed.volumeCorrection === preset.volumeCorrection &&
          typed.buoyancyCorrection === preset.buoyancyCorrection;
        return (
          <div key={key} className="flex flex-wrap items-center gap-x-4 gap-y-1">
            <Button
              aria-pressed={isChosen}
              className="w-32"
              look={isChosen ? 'primary' : 'plain'}
              onClick={() => {
                onChoose(preset);
              }}
            >
              {name}
            </Button>
            <span className="text-[15px] text-ink-soft">{what}</span>
          </div>
        );
      })}
    </div>
  );
}

/** Asks a laboratory of before, once, how its figures are to be corrected; who manages it answers under the house rules. */
export function AskedForCorrections() {
  const { laboratory, person } = useSession();
  if (!isCorrectionUnsaid(laboratory.rules) || !may(person, 'manage')) return null;
  return (
    <section className="mb-6 border-l-4 border-straw bg-straw-wash px-4 py-3">
      <h2 className="font-bold">Volumes and masses can be corrected now</h2>
      <p className="mt-1 mb-2">
        For temperature (0.11 % at 25 °C) and for the lift of the air (0.06 % of phthalate). Choose
        once for the laboratory; until then nothing changes. Runs keep the rules that they began
        with.
      </p>
      <ButtonLink to="/rules" look="primary">
        Choose
      </ButtonLink>
    </section>
  );
}
