/** Pictures of a piece: dropped, pasted or chosen. */
import { Button } from '@mui/material';
import { pieceRoutes, type PieceSheet } from '@jutbank/contract/pieces';
import { useEffect, useRef, useState } from 'react';
import { ApiProblem, send } from '../base/api.ts';
import { inLine, useTakeSheet } from './usePiece.ts';
import './pieces.css';

export function Pictures({ sheet, disabled }: { sheet: PieceSheet; disabled: boolean }) {
  const takeSheet = useTakeSheet();
  const [over, setOver] = useState(false);
  const [busy, setBusy] = useState(0);
  const [problem, setProblem] = useState<string>();
  const chooser = useRef<HTMLInputElement>(null);
  const add = (files: readonly File[]) => {
    for (const file of files) {
      setBusy((n) => n + 1);
      setProblem(undefined);
      const form = new FormData();
      form.set('file', file);
      void inLine(sheet.id, () => send(pieceRoutes.addPicture, { params: { id: sheet.id }, body: form }))
        .then(takeSheet, (error: unknown) =>
          setProblem(`${file.name}: ${error instanceof ApiProblem ? error.message : String(error)}`),
        )
        .finally(() => setBusy((n) => n - 1));
    }
  };
  const addRef = useRef(add);
  useEffect(() => {
    addRef.current = add;
  });
  useEffect(() => {
    if (disabled) return;
    const paste = (event: ClipboardEvent) => {
      const files = [...(event.clipboardData?.files ?? [])];
      if (files.length > 0) addRef.current(files);
    };
    addEventListener('paste', paste);
    return () => removeEventListener('paste', paste);
  }, [disabled]);
  const remove = (picture: string) => {
    void inLine(sheet.id, () =>
      send(pieceRoutes.removePicture, { params: { id: sheet.id, picture }, version: sheet.version }),
    ).then(takeSheet, (error: unknown) =>
      setProblem(error instanceof ApiProblem ? error.message : String(error)),
    );
  };
  return (
    <>
      <div className="pictures">
        {sheet.pictures.map((picture) => (
          <figure key={picture.id}>
            <a href={`/api/v1/pictures/${picture.hash}/full`} target="_blank" rel="noreferrer">
              <img
                src={`/api/v1/pictures/${picture.hash}/thumb`}
                alt={picture.caption || 'Picture of the piece'}
              />
            </a>
            <figcaption>
              {picture.caption || `${picture.width} × ${picture.height}`}
              {!disabled && (
                <Button
                  variant="text"
                  className="quiet"
                  onClick={() => remove(picture.id)}
                  aria-label={`Take away ${picture.caption || 'this picture'}`}
                >
                  ×
                </Button>
              )}
            </figcaption>
          </figure>
        ))}
      </div>
      {!disabled && (
        <button
          type="button"
          className={over ? 'drop over' : 'drop'}
          style={{ marginTop: 8 }}
          onClick={() => chooser.current?.click()}
          onDragOver={(e) => {
            e.preventDefault();
            setOver(true);
          }}
          onDragLeave={() => setOver(false)}
          onDrop={(e) => {
            e.preventDefault();
            setOver(false);
            add([...e.dataTransfer.files]);
          }}
        >
          {busy > 0 ? `Adding ${busy}…` : 'Drop, paste or choose pictures'}
        </button>
      )}
      <input
        ref={chooser}
        type="file"
        accept="image/*"
        multiple
        hidden
        aria-label="Choose pictures"
        onChange={(e) => add([...(e.target.files ?? [])])}
      />
      {problem !== undefined && (
        <p className="problem" role="alert">
          {problem}
        </p>
      )}
    </>
  );
}
