/** What speaks against entries about samples. */
export const SAMPLE_FINDINGS = {
  'disposed-of': () => 'This sample has been disposed of.',
  'sample-code-taken': () => 'Another sample has this code.',
  'received-before-sampled': () => 'It was received before it was taken.',
  'asked-twice': () => 'The same analysis is asked for twice: keep one.',
  'other-unit': ({ units }: { units: readonly string[] }) =>
    `This analysis is stated in ${units.join(', ')}.`,
  'whole-units-by-unit': ({ code }: { code: string }) =>
    `Of whole units the content of one is found; sample ${code} is asked for in another unit. Weigh parts of it instead.`,
  'no-such-part': () => 'This analysis does not tell that part: choose from its list.',
  'not-stated-as': () => 'This analysis is not stated as that: choose from its list.',
  'density-missing': () =>
    'A content by mass of what is pipetted needs the density of the sample: measure it, or choose another unit.',
  'unit-mass-missing': () =>
    'A content of each unit needs the mean mass of one: weigh twenty and divide.',
  'dry-matter-by-mass': () => 'Of dry matter a content is stated by mass: choose such a unit.',
  'dry-matter-missing': () =>
    'A content of dry matter needs what a drying leaves of the sample: write it down with it.',
  'volume-needed': () =>
    'A content by volume needs a pipetted portion: choose a pipette, or ask for a content by mass.',
  'no-limit': () => 'Give a lower limit, an upper one, or both.',
  'limits-crossed': () => 'The lower limit lies above the upper one.',
  'not-last-dilution': () => 'Only the last dilution can be struck out: the others rest on it.',
  'aliquot-fills-flask': () => 'The aliquot must be smaller than the flask.',
  'aliquot-over-sample': ({ amountMl }: { amountMl: string }) =>
    `There are only ${amountMl} mL of the sample.`,
  'other-titrant': () => 'This analysis is titrated with another solution.',
  'titrant-awaits-authorization': ({ code }: { code: string }) =>
    `The molarity of bottle ${code} is calculated and nobody has authorized it: certify it, go on with its certificate at the bench, then report.`,
  'other-indicator': ({ number, there, here }: { number: string; there: string; here: string }) =>
    `Certificate ${number} rests on ${there}, this analysis ends by ${here}: what the end points are off by does not cancel.`,
  'other-temperature-rule': ({ number }: { number: string }) =>
    `Volumes are corrected for temperature here otherwise than for certificate ${number}: take the thermometer, or leave it out, as there.`,
  'no-sample': () => 'Choose a sample.',
  'sample-twice': () => 'The same sample stands there twice: keep one.',
  'sample-disposed-of': ({ code }: { code: string }) => `Sample ${code} has been disposed of.`,
  'wrong-test-portion': ({ takes }: { takes: 'weighed' | 'aliquot' }) =>
    takes === 'weighed'
      ? 'This analysis takes aliquots: choose a pipette.'
      : 'This analysis takes weighed portions: choose a balance.',
  'other-dilutions': ({ code }: { code: string }) =>
    `Sample ${code} was not diluted so: choose its steps as they are on record.`,
  'dilution-weighed': ({ code }: { code: string }) =>
    `A dilution is pipetted: sample ${code} cannot be weighed then.`,
  'limits-of-detection-crossed': ({ entry }: { entry: string }) =>
    `${entry}: the limit of quantification lies below that of detection.`,
  'no-control': () => 'This sample is no control: correct it first, if it is one.',
  'not-asked-for': () => 'The sample is not asked for that analysis in that unit.',
  'which-sample': () => 'Say of which sample the portion is.',
  'small-aliquot': ({ aliquotMl }: { aliquotMl: string }) =>
    `Below 5 mL the tolerance of the pipette weighs heavily: ${aliquotMl} mL.`,
};
