import type { LabelSheet } from '#core/label';
import { fitsOnPage } from '#core/label';
import { TextField } from '../ui/fields';

/** The pairs of a sheet, with what each figure is. */
const PAIRS = [
  { key: 'pageMm', labels: ['Page, width', 'Page, height'] },
  { key: 'labelMm', labels: ['Label, width', 'Label, height'] },
  { key: 'marginMm', labels: ['To the first, left', 'To the first, top'] },
  { key: 'gapMm', labels: ['Between, across', 'Between, down'] },
] as const;

interface SheetFieldsProps {
  readonly sheet: LabelSheet;
  readonly onChange: (sheet: LabelSheet) => void;
}

/** A sheet of labels by its millimetres. */
export function SheetFields({ sheet, onChange }: SheetFieldsProps) {
  return (
    <fieldset className="grid grid-cols-1 gap-x-4 gap-y-2 sm:grid-cols-2">
      <legend className="sr-only">The sheet, in millimetres</legend>
      {PAIRS.flatMap(({ key, labels }) =>
        ([0, 1] as const).map((i) => (
          <TextField
            key={labels[i]}
            label={`${labels[i]} / mm`}
            type="number"
            min={0}
            step={0.1}
            value={sheet[key][i]}
            onChange={(event) => {
              const value = Number(event.target.value);
              const pair = i === 0 ? [value, sheet[key][1]] : [sheet[key][0], value];
              onChange({ ...sheet, [key]: pair });
            }}
          />
        )),
      )}
      {(['columns', 'rows'] as const).map((key) => (
        <TextField
          key={key}
          label={key === 'columns' ? 'Columns' : 'Rows'}
          type="number"
          min={1}
          value={sheet[key]}
          onChange={(event) => {
            onChange({ ...sheet, [key]: Math.max(1, Math.floor(Number(event.target.value))) });
          }}
        />
      ))}
      {!fitsOnPage(sheet) && (
        <p role="alert" className="col-span-full font-semibold text-blush">
          These labels do not fit on that page: check the millimetres.
        </p>
      )}
    </fieldset>
  );
}
