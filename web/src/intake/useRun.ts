/** Pieces on their way into a lot: whatever is written goes into a line at once, and is sent while the next is typed. */
import { lotRoutes, MOST_AT_ONCE, type LotPiecesBody, type LotSheet } from '@jutbank/contract/intake';
import { useRef, useState } from 'react';
import { ApiProblem, send } from '../base/api.ts';
import { useUnsaved } from '../base/unsaved.ts';

export type RunPiece = LotPiecesBody['pieces'][number];
type AsFound = LotPiecesBody['asFound'];
export interface Waiting {
  readonly key: number;
  readonly piece: RunPiece;
  readonly asFound: AsFound;
  /** what the server says is wrong with it; it waits for somebody */
  readonly problem?: string;
}
export interface Running {
  readonly waiting: readonly Waiting[];
  /** why nothing goes on just now */
  readonly held: string | undefined;
  add(pieces: readonly RunPiece[], asFound: AsFound): void;
  /** takes one out of the line again */
  drop(key: number): void;
  again(): void;
}

export function useRun(lot: string, onTaken: (sheet: LotSheet) => void): Running {
  const [waiting, setWaiting] = useState<readonly Waiting[]>([]);
  const [held, setHeld] = useState<string>();
  // the line itself: whoever sends does not wait for the screen
  const line = useRef<readonly Waiting[]>([]);
  const next = useRef(0);
  const sending = useRef(false);
  const put = (now: readonly Waiting[]) => {
    line.current = now;
    setWaiting(now);
  };
  const drain = async () => {
    if (sending.current) return;
    sending.current = true;
    setHeld(undefined);
    try {
      for (;;) {
        const batch = nextBatch(line.current);
        const [first] = batch;
        if (!first) break;
        const gone = new Set(batch.map((w) => w.key));
        try {
          const sheet = await send(lotRoutes.addPieces, {
            params: { id: lot },
            body: { asFound: first.asFound, pieces: batch.map((w) => w.piece) },
          });
          put(line.current.filter((w) => !gone.has(w.key)));
          onTaken(sheet);
        } catch (error) {
          const refusal = error instanceof ApiProblem ? error : undefined;
          const wrong = new Map(
            batch.flatMap((w, i): [number, string][] => {
              const own = refusal?.errors.find((e) => e.pointer.startsWith(`/pieces/${i}/`));
              return own ? [[w.key, own.message]] : [];
            }),
          );
          if (wrong.size === 0) {
            setHeld(refusal?.message ?? String(error));
            break;
          }
          // those that are wrong wait for somebody, the others go on
          put(
            line.current.map((w) => {
              const problem = wrong.get(w.key);
              return problem === undefined ? w : { ...w, problem };
            }),
          );
        }
      }
    } finally {
      sending.current = false;
    }
  };
  useUnsaved(waiting.length > 0);
  return {
    waiting,
    held,
    add: (pieces, asFound) => {
      put([...line.current, ...pieces.map((piece) => ({ key: next.current++, piece, asFound }))]);
      void drain();
    },
    drop: (key) => put(line.current.filter((w) => w.key !== key)),
    again: () => void drain(),
  };
}

/** From the front of the line, as many as one request takes that came in the same state. */
function nextBatch(line: readonly Waiting[]): readonly Waiting[] {
  const ready = line.filter((w) => w.problem === undefined);
  const other = ready.findIndex((w) => w.asFound !== ready[0]?.asFound);
  return ready.slice(0, Math.min(MOST_AT_ONCE, other < 0 ? ready.length : other));
}
