/** A piece on the screen: read once, saved as one goes, with undo, and a notice when two people meet. */
import { pieceRoutes, type PieceSheet } from '@jutbank/contract/pieces';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Route } from '@jutbank/contract/http';
import { type KeptAnswers, useAnswer, useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send, type Held } from '../base/api.ts';

export function usePieceQuery(id: string) {
  return useAnswer(pieceRoutes.piece, { params: { id } });
}

/** Not sold and not given back: what can still be worked on. */
export const isHere = ({ sale, givenBack }: Pick<PieceSheet, 'sale' | 'givenBack'>): boolean =>
  sale === null && givenBack === null;

/** Whatever was computed of a piece is asked anew; its sheet is not. */
export const invalidatePiece = (answers: KeptAnswers, id: string) =>
  answers.invalidateBelow(`${pieceRoutes.piece.path}/`, { id });

/** Puts a fresh sheet in place and lets everything computed from it be asked again. */
export function useTakeSheet() {
  const answers = useKeptAnswers();
  return useCallback(
    (sheet: PieceSheet) => {
      answers.set(pieceRoutes.piece, { params: { id: sheet.id } }, sheet);
      void answers.invalidate(pieceRoutes.tray);
      void invalidatePiece(answers, sheet.id);
    },
    [answers],
  );
}

/** Writes to one piece go one after the other, each with the version the one before it made. */
const lines = new Map<string, Promise<unknown>>();
export function inLine<T>(id: string, work: () => Promise<T>): Promise<T> {
  const next = (lines.get(id) ?? Promise.resolve()).catch(() => undefined).then(work);
  lines.set(id, next);
  return next;
}

export interface StageState<T> {
  readonly value: T;
  /** changes the value and saves it a moment later */
  set(next: T): void;
  undo(): void;
  readonly canUndo: boolean;
  readonly saving: 'saved' | 'waiting' | 'saving' | 'failed';
  readonly problem: ApiProblem | undefined;
  /** somebody else changed the piece: what they have, and the two ways on */
  readonly conflict: { takeTheirs(): void; keepMine(): void } | undefined;
}

const PAUSE_MS = 450;

/**
 * @param route that keeps the stage's part of the record
 * @param stored its value as the server has it
 * @param body the request body for a value
 */
export function useStage<T, B, I>(
  sheet: PieceSheet,
  route: Route<{ id: string }, unknown, B, PieceSheet, I>,
  stored: T,
  body: (value: T) => Held<I>,
): StageState<T> {
  const answers = useKeptAnswers();
  const takeSheet = useTakeSheet();
  const [value, setValue] = useState(stored);
  const [past, setPast] = useState<readonly T[]>([]);
  const [saving, setSaving] = useState<StageState<T>['saving']>('saved');
  const [problem, setProblem] = useState<ApiProblem>();
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const latest = useRef(value);
  const pending = useRef(false);

  const save = useCallback(
    (version?: number) => {
      pending.current = false;
      clearTimeout(timer.current);
      setSaving('saving');
      const sent = latest.current;
      void inLine(sheet.id, async () => {
        const seen =
          version ?? answers.get(pieceRoutes.piece, { params: { id: sheet.id } })?.version ?? sheet.version;
        try {
          const fresh = await send(route, {
            params: { id: sheet.id },
            body: body(sent),
            version: seen,
          });
          takeSheet(fresh);
          setProblem(undefined);
          setSaving(pending.current ? 'waiting' : 'saved');
        } catch (error) {
          setSaving('failed');
          setProblem(error instanceof ApiProblem ? error : new ApiProblem(0, 'Not saved', String(error), []));
        }
      });
    },
    [body, route, answers, sheet.id, sheet.version, takeSheet],
  );
  const saveRef = useRef(save);
  useEffect(() => {
    saveRef.current = save;
  }, [save]);
  useEffect(
    () => () => {
      if (pending.current) saveRef.current();
    },
    [],
  );

  const put = (next: T) => {
    latest.current = next;
    setValue(next);
    setSaving('waiting');
    pending.current = true;
    clearTimeout(timer.current);
    timer.current = setTimeout(() => saveRef.current(), PAUSE_MS);
  };
  return {
    value,
    set: (next) => {
      setPast([...past.slice(-49), value]);
      put(next);
    },
    undo: () => {
      const before = past.at(-1);
      if (before === undefined) return;
      setPast(past.slice(0, -1));
      put(before);
    },
    canUndo: past.length > 0,
    saving,
    problem,
    conflict:
      problem?.status === 412
        ? {
            takeTheirs: () => {
              void send(pieceRoutes.piece, { params: { id: sheet.id } }).then((fresh) => {
                takeSheet(fresh);
                location.reload();
              });
            },
            keepMine: () => {
              void send(pieceRoutes.piece, { params: { id: sheet.id } }).then((fresh) => save(fresh.version));
            },
          }
        : undefined,
  };
}
