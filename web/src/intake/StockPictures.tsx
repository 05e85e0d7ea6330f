/** The pictures of a whole stock: found by the names that the list gave them, or by the number in their names. */
import { stockListRoutes, type StockListPieces } from '@jutbank/contract/intake';
import { pieceRoutes } from '@jutbank/contract/pieces';
import { picturesByName } from '@jutbank/core/intake';
import { Button, LinearProgress } from '@mui/material';
import { useMemo, useRef, useState } from 'react';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { Failed, Loading } from '../base/states.tsx';
import { useUnsaved } from '../base/unsaved.ts';
import { FileDrop } from '../parts/FileDrop.tsx';
import { counted } from '../parts/words.ts';

/** So many go at a time: one is made smaller while another is on its way. */
const AT_ONCE = 3;
const NAMES_SHOWN = 12;

export function StockPictures({ id, onClose }: { id: string; onClose: () => void }) {
  const list = useAnswer(stockListRoutes.stockList, { params: { id } });
  if (list.isPending) return <Loading />;
  if (list.isError) return <Failed error={list.error} retry={() => void list.refetch()} />;
  return <Matching list={list.data} onClose={onClose} />;
}

function Matching({ list, onClose }: { list: StockListPieces; onClose: () => void }) {
  const answers = useKeptAnswers();
  const [files, setFiles] = useState<readonly File[]>([]);
  const [sent, setSent] = useState<{ readonly done: number; readonly of: number }>();
  const [failed, setFailed] = useState<readonly { readonly file: File; readonly problem: string }[]>([]);
  const stopped = useRef(false);
  useUnsaved(files.length > 0);
  const owners = useMemo(
    () =>
      picturesByName(
        files.map((file) => file.name),
        list.list.map((piece) => ({ ...piece, files: piece.pictures })),
      ),
    [files, list],
  );
  const matched = files.filter((_, i) => (owners[i]?.length ?? 0) > 0);
  const strange = files.filter((_, i) => (owners[i]?.length ?? 0) === 0);
  const shown = new Set(owners.flat());
  const bare = list.list.filter((piece) => piece.has === 0 && !shown.has(piece.id));

  const sendAll = async () => {
    stopped.current = false;
    const tasks = files.map((file, i) => ({ file, to: owners[i] ?? [] })).filter(({ to }) => to.length > 0);
    const waiting = [...tasks];
    const wrong: { file: File; problem: string }[] = [];
    const gone = new Set<File>();
    setFailed([]);
    setSent({ done: 0, of: tasks.length });
    const next = async (): Promise<void> => {
      const task = stopped.current ? undefined : waiting.shift();
      if (!task) return;
      try {
        for (const piece of task.to) {
          const form = new FormData();
          form.set('file', task.file);
          // gone on with after a break, those that went before are no second ones
          form.set('unlessShown', '1');
          await send(pieceRoutes.addPicture, { params: { id: piece }, body: form });
        }
        gone.add(task.file);
      } catch (error) {
        wrong.push({ file: task.file, problem: error instanceof ApiProblem ? error.message : String(error) });
      }
      setSent((now) => now && { ...now, done: now.done + 1 });
      return next();
    };
    await Promise.all(Array.from({ length: AT_ONCE }, () => next()));
    setSent(undefined);
    setFailed(wrong);
    setFiles((now) => now.filter((file) => !gone.has(file)));
    void answers.invalidate(stockListRoutes.stockList, stockListRoutes.listStockLists, pieceRoutes.tray);
  };

  return (
    <section aria-label="Pictures of the list" className="stockpictures">
      <h2 className="sec">
        Pictures of “{list.name}”{' '}
        <small>
          {counted(list.pieces)} {list.pieces === 1 ? 'piece' : 'pieces'},{' '}
          {list.bare === 0 ? 'all show a picture' : `${counted(list.bare)} show none yet`}
        </small>
      </h2>
      <FileDrop
        label="Choose all pictures"
        onFiles={(more) => setFiles((now) => [...now, ...more.filter(isPicture)])}
      >
        Drop or choose all of them at once: each finds its piece by the name your list gives it, or by the
        number in its own name
      </FileDrop>
      {files.length > 0 && (
        <p role="status" className="trial">
          <b>{counted(matched.length)}</b> of {counted(files.length)} pictures find their piece
          {bare.length > 0 &&
            `; ${counted(bare.length)} ${bare.length === 1 ? 'piece' : 'pieces'} would still show none`}
          .
        </p>
      )}
      {strange.length > 0 && (
        <p className="soft">
          Nobody’s, and left out:{' '}
          {strange
            .slice(0, NAMES_SHOWN)
            .map((file) => file.name)
            .join(', ')}
          {strange.length > NAMES_SHOWN && ` and ${counted(strange.length - NAMES_SHOWN)} more`}
        </p>
      )}
      {failed.length > 0 && (
        <div role="alert">
          {failed.slice(0, NAMES_SHOWN).map(({ file, problem }) => (
            <p key={file.name} className="problem">
              {file.name}: {problem}
            </p>
          ))}
        </div>
      )}
      {sent && (
        <div role="status" className="sending">
          <LinearProgress
            variant="determinate"
            value={(100 * sent.done) / sent.of}
            aria-label="Pictures sent"
          />
          <span className="num">
            {counted(sent.done)} of {counted(sent.of)}
          </span>
        </div>
      )}
      <div className="submit">
        {files.length > 0 && !sent && (
          <Button variant="contained" disabled={matched.length === 0} onClick={() => void sendAll()}>
            Add {counted(matched.length)} {matched.length === 1 ? 'picture' : 'pictures'}
          </Button>
        )}
        {sent && (
          <Button
            onClick={() => {
              stopped.current = true;
            }}
          >
            Stop
          </Button>
        )}
        {!sent && (
          <Button
            variant="text"
            className="quiet"
            onClick={() => {
              setFiles([]);
              onClose();
            }}
          >
            {files.length > 0 ? 'Leave them' : 'Close'}
          </Button>
        )}
      </div>
    </section>
  );
}

const isPicture = (file: File): boolean => file.type.startsWith('image/');
