/** What an incident does to a solution whose molarity follows from how it is made. */
interface PreparationIncident {
  readonly id: string;
  readonly name: string;
  /** Whether an exact solution is lost by it; an approximate one never is, its molarity is found out later. */
  readonly spoilsExact: boolean;
  readonly reason: string;
}

/** Incidents of a preparation, the usual ones first; stored as mishaps. */
export const PREPARATION_INCIDENTS: readonly PreparationIncident[] = [
  {
    id: 'over-filled',
    name: 'filled past the mark',
    spoilsExact: true,
    reason: 'It is too dilute by an unknown amount. Taking some out again takes solute too.',
  },
  {
    id: 'solid-lost',
    name: 'solid or solution lost before the mark',
    spoilsExact: true,
    reason: 'What was weighed is not what is in the flask.',
  },
  {
    id: 'not-dissolved',
    name: 'something lay undissolved at the mark',
    spoilsExact: true,
    reason: 'The volume changes as it dissolves, and what was poured off before was weaker.',
  },
  {
    id: 'wrong-vessel',
    name: 'another vessel than planned',
    spoilsExact: true,
    reason:
      'The volume is not the one in the equation: plan it again with the vessel that was used.',
  },
  {
    id: 'filled-warm',
    name: 'filled to the mark while warm',
    spoilsExact: true,
    reason: 'It contracts as it cools: 10 K are about 0.2 % of the volume.',
  },
  {
    id: 'spilled-after-mixing',
    name: 'some spilled after it was mixed',
    spoilsExact: false,
    reason: 'There is less of it, of the same molarity.',
  },
  {
    id: 'flask-was-wet',
    name: 'the flask was wet with water',
    spoilsExact: false,
    reason: 'It is filled up with water anyway.',
  },
  {
    id: 'other',
    name: 'something else, as written',
    spoilsExact: false,
    reason: 'Whoever bottles it decides whether it matters.',
  },
];
