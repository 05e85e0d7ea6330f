import { useEffect, useRef, useState } from 'react';
import type { Comparison, Point, Raster, Region } from '@jutbank/core/imaging';
import type { Job, Told } from './measuring.worker.ts';

export interface Measuring {
  readonly busy: { readonly share: number; readonly doing: string } | undefined;
  readonly problem: string | undefined;
  /** @param avoid places on the rule or card, which is not the blade */
  findOutline(
    raster: Raster,
    region: Region,
    avoid: readonly Point[],
    found: (contour: readonly Point[]) => void,
  ): void;
  compare(reference: readonly Point[], measured: readonly Point[], done: (c: Comparison) => void): void;
  cancel(): void;
}

/** One worker at a time; a new job, leaving the page, or Cancel ends the one before. */
export function useMeasuring(): Measuring {
  const worker = useRef<Worker>(undefined);
  const [busy, setBusy] = useState<Measuring['busy']>();
  const [problem, setProblem] = useState<string>();
  const end = () => {
    worker.current?.terminate();
    worker.current = undefined;
  };
  useEffect(() => end, []);
  const run = (job: Job, heard: (told: Told) => void) => {
    end();
    setProblem(undefined);
    setBusy({ share: 0, doing: 'starting' });
    const started = new Worker(new URL('./measuring.worker.ts', import.meta.url), { type: 'module' });
    worker.current = started;
    started.onerror = () => {
      setProblem('The measuring broke off. Try it within a smaller part of the picture.');
      setBusy(undefined);
      end();
    };
    started.onmessage = ({ data }: MessageEvent<Told>) => {
      if (data.kind === 'progress') {
        setBusy({ share: data.share, doing: data.doing });
        return;
      }
      setBusy(undefined);
      end();
      heard(data);
    };
    started.postMessage(job);
  };
  return {
    busy,
    problem,
    findOutline: (raster, region, avoid, found) =>
      run({ kind: 'outline', raster, region, avoid }, (told) => {
        if (told.kind !== 'outline') return;
        if (told.contour) found(told.contour);
        else setProblem('Nothing stands out from the ground here. Draw it by hand, or take another picture.');
      }),
    compare: (reference, measured, done) =>
      run({ kind: 'compare', reference, measured }, (told) => {
        if (told.kind !== 'compared') return;
        if (told.comparison) done(told.comparison);
        else setProblem('These outlines cannot be laid on each other.');
      }),
    cancel: () => {
      end();
      setBusy(undefined);
    },
  };
}
