import type { Pictogram as PictogramCode } from '#core/chemistry';
import { PICTOGRAM_NAMES, pictogramSvg } from '#core/label';

/** A pictogram of a hazard, as a picture with its name. */
export function Pictogram({
  of,
  className,
}: {
  readonly of: PictogramCode;
  readonly className: string;
}) {
  return (
    <img
      className={className}
      alt={PICTOGRAM_NAMES[of]}
      title={PICTOGRAM_NAMES[of]}
      src={`data:image/svg+xml,${encodeURIComponent(pictogramSvg(of))}`}
    />
  );
}
