/** The pictures of a piece as they are wanted: every change sends all of them, so that every change can be taken back. */
import {
  pieceRoutes,
  type PictureRecord,
  type PicturesBody,
  type PieceSheet,
} from '@jutbank/contract/pieces';
import { useState } from 'react';
import { ApiProblem, send } from '../base/api.ts';
import { inLine, useTakeSheet } from './usePiece.ts';

type Wanted = PicturesBody['pictures'];
const wantedOf = (pictures: readonly PictureRecord[]): Wanted =>
  pictures.map(({ id, caption, frame, mmPerPixel }) => ({ id, caption, frame, mmPerPixel }));

export interface Arranging {
  /** one picture otherwise than it is */
  change(id: string, how: Partial<Wanted[number]>): void;
  move(id: string, by: -1 | 1): void;
  remove(id: string): void;
  /** takes back the last removal; undefined where there is none */
  readonly undo: (() => void) | undefined;
  readonly problem: string | undefined;
  readonly busy: boolean;
}

export function usePictures(sheet: PieceSheet): Arranging {
  const takeSheet = useTakeSheet();
  const [removed, setRemoved] = useState<Wanted>();
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(0);
  const { id, version } = sheet;
  const put = (pictures: Wanted, before?: Wanted) => {
    setBusy((n) => n + 1);
    setProblem(undefined);
    void inLine(id, () => send(pieceRoutes.putPictures, { params: { id }, body: { pictures }, version }))
      .then(
        (fresh) => {
          takeSheet(fresh);
          setRemoved(before);
        },
        (error: unknown) => setProblem(error instanceof ApiProblem ? error.message : String(error)),
      )
      .finally(() => setBusy((n) => n - 1));
  };
  const now = wantedOf(sheet.pictures);
  return {
    change: (picture, how) => put(now.map((p) => (p.id === picture ? { ...p, ...how } : p))),
    move: (picture, by) => {
      const at = now.findIndex((p) => p.id === picture);
      const next = [...now];
      const [taken] = next.splice(at, 1);
      if (taken) next.splice(at + by, 0, taken);
      put(next);
    },
    remove: (picture) =>
      put(
        now.filter((p) => p.id !== picture),
        now,
      ),
    undo: removed && (() => put(removed)),
    problem,
    busy: busy > 0,
  };
}
