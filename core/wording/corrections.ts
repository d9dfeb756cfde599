import { decimalOf, figureText, roundHalfEven } from '../measurement';

/** What is done about something that is known to shift a result. */
export type CorrectionHow = 'corrected' | 'carried' | 'left-out';

interface Size {
  readonly percent: number | string;
  readonly how: CorrectionHow;
}

/** What was corrected in a result, with the result as measured as it is to be shown. */
interface CorrectionsSaid {
  readonly asMeasured: string;
  readonly temperatureC: number | string;
  readonly temperature: Size | null;
  readonly buoyancy: Size | null;
}

/** Corrections are stated to a thousandth of a per cent. */
export const CORRECTION_DECIMALS = 3;

const HEADS: Readonly<Record<Exclude<CorrectionHow, 'corrected'>, string>> = {
  carried: 'Not corrected, carried in U',
  'left-out': 'Not corrected',
};

/**
 * What stands under a result: `As measured at 25 °C: 0.1000; temperature +0.111 %; buoyancy +0.058 %`, so that a calculator's check
 * agrees; and what was not corrected, with its size. Null where there is nothing to say.
 */
export function correctionsText(said: CorrectionsSaid): string | null {
  const sizes = [
    { name: 'temperature', size: said.temperature },
    { name: 'buoyancy', size: said.buoyancy },
  ].flatMap(({ name, size }) => {
    const percent = size ? roundHalfEven(Number(size.percent), CORRECTION_DECIMALS) : '0';
    return size && Number(percent) !== 0
      ? [
          {
            how: size.how,
            text: `${name} ${Number(percent) > 0 ? '+' : ''}${figureText(percent)} %`,
          },
        ]
      : [];
  });
  const inWords = (how: CorrectionHow): readonly string[] =>
    sizes.filter((one) => one.how === how).map(({ text }) => text);
  const made = inWords('corrected');
  const at = decimalOf(Number(said.temperatureC));
  const parts = [
    ...(made.length > 0
      ? [
          [`As measured at ${figureText(at)} °C: ${figureText(said.asMeasured)}`, ...made].join(
            '; ',
          ),
        ]
      : []),
    ...(['carried', 'left-out'] as const).flatMap((how) => {
      const left = inWords(how);
      return left.length > 0 ? [`${HEADS[how]}: ${left.join(', ')}`] : [];
    }),
  ];
  return parts.length > 0 ? parts.join('. ') : null;
}
