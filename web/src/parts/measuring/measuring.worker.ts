/** The heavy part of measuring from a picture, away from the screen: it tells how far it is and can be ended. */
import {
  compareOutlines,
  segment,
  simplified,
  type Comparison,
  type Point,
  type Raster,
  type Region,
} from '@jutbank/core/imaging';

export type Job =
  | {
      readonly kind: 'outline';
      readonly raster: Raster;
      readonly region: Region;
      readonly avoid: readonly Point[];
    }
  | { readonly kind: 'compare'; readonly reference: readonly Point[]; readonly measured: readonly Point[] };
export type Told =
  | { readonly kind: 'progress'; readonly share: number; readonly doing: string }
  | { readonly kind: 'outline'; readonly contour: readonly Point[] | undefined }
  | { readonly kind: 'compared'; readonly comparison: Comparison | undefined };

const tell = (told: Told) => postMessage(told);
/** Points closer to the line than this, in pixels, need not be dragged. */
const TOLERANCE = 0.7;

addEventListener('message', (event: MessageEvent<Job>) => {
  const job = event.data;
  if (job.kind === 'compare') {
    tell({ kind: 'compared', comparison: compareOutlines(job.reference, job.measured) });
    return;
  }
  const found = segment(
    job.raster,
    job.region,
    (share, doing) => tell({ kind: 'progress', share, doing }),
    job.avoid,
  );
  tell({ kind: 'outline', contour: found && simplified(found.contour, TOLERANCE) });
});
