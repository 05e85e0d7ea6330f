/** Pictures of a piece: dropped, pasted or chosen. */
import { Button, ButtonBase } from '@mui/material';
import { pieceRoutes, type PictureRecord, type PieceSheet } from '@jutbank/contract/pieces';
import { useEffect, useMemo, useRef, useState, type ComponentProps } from 'react';
import { ApiProblem, send } from '../base/api.ts';
import { useShortcuts } from '../base/shortcuts.ts';
import { inLine, useTakeSheet } from './usePiece.ts';
import { FileDrop } from '../parts/FileDrop.tsx';
import { LineInput } from '../parts/fields/LineInput.tsx';
import { PictureView } from './PictureView.tsx';
import { useForms } from '../reference/useForms.ts';
import { usePictures, type Arranging } from './usePictures.ts';
import './pieces.css';

type Viewing = Omit<ComponentProps<typeof PictureView>, 'recipe'>;
/** What the piece is drawn from is asked for only once a picture is open. */
function Viewed({ sheet, ...viewing }: Viewing) {
  const { variant, pattern } = sheet.readings.which;
  const as = { construction: sheet.intake.construction, variant, pattern };
  const recipeOf = useForms([as]);
  return <PictureView {...viewing} sheet={sheet} recipe={recipeOf(as)} />;
}

export function Pictures({ sheet, disabled }: { sheet: PieceSheet; disabled: boolean }) {
  const takeSheet = useTakeSheet();
  const [busy, setBusy] = useState(0);
  const [problem, setProblem] = useState<string>();
  const chooser = useRef<HTMLButtonElement>(null);
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
  const keys = useMemo(
    () => (disabled ? [] : [{ key: 'p', does: 'Choose pictures', run: () => chooser.current?.click() }]),
    [disabled],
  );
  useShortcuts('Pictures', keys);
  const arranging = usePictures(sheet);
  const [viewed, setViewed] = useState<number>();
  return (
    <>
      <div className="pictures">
        {sheet.pictures.map((picture, i) => (
          <Picture
            key={picture.id}
            picture={picture}
            named={picture.caption || `picture ${i + 1}`}
            disabled={disabled}
            isFirst={i === 0}
            isLast={i === sheet.pictures.length - 1}
            arranging={arranging}
            onView={() => setViewed(i)}
          />
        ))}
      </div>
      {arranging.undo && (
        <p role="status">
          A picture was taken away.{' '}
          <Button variant="text" className="quiet" onClick={arranging.undo}>
            Put it back
          </Button>
        </p>
      )}
      {viewed !== undefined && (
        <Viewed
          sheet={sheet}
          at={viewed}
          disabled={disabled}
          onTurn={setViewed}
          onFrame={({ id }, frame) => arranging.change(id, { frame })}
          onClose={() => setViewed(undefined)}
        />
      )}
      {!disabled && (
        <div style={{ marginTop: 8 }}>
          <FileDrop label="Choose pictures" chooserRef={chooser} onFiles={add}>
            {busy > 0 ? `Adding ${busy}…` : 'Drop, paste or choose pictures'}
            <kbd className="act-key" aria-hidden>
              p
            </kbd>
          </FileDrop>
        </div>
      )}
      {(problem ?? arranging.problem) !== undefined && (
        <p className="problem" role="alert">
          {problem ?? arranging.problem}
        </p>
      )}
    </>
  );
}

/** One of them: its caption is typed where it stands, and kept when the field is left. */
function Picture({
  picture,
  named,
  disabled,
  isFirst,
  isLast,
  arranging,
  onView,
}: {
  picture: PictureRecord;
  named: string;
  disabled: boolean;
  isFirst: boolean;
  isLast: boolean;
  arranging: Arranging;
  onView: () => void;
}) {
  const [caption, setCaption] = useState(picture.caption);
  const keep = () => {
    if (caption.trim() !== picture.caption) arranging.change(picture.id, { caption: caption.trim() });
  };
  const act = (sign: string, what: string, run: () => void, off = false) => (
    <Button
      variant="text"
      className="quiet"
      disabled={off || arranging.busy}
      aria-label={`${what} ${named}`}
      onClick={run}
    >
      {sign}
    </Button>
  );
  return (
    <figure>
      <ButtonBase aria-label={`Look at ${named}`} onClick={onView}>
        <img
          src={`/api/v1/pictures/${picture.shown}/thumb`}
          alt={picture.caption || 'Picture of the piece'}
        />
      </ButtonBase>
      <figcaption>
        {disabled ? (
          picture.caption || `${picture.width} × ${picture.height}`
        ) : (
          <>
            <LineInput
              label={`Caption of ${named}`}
              hint="what it shows"
              maxLength={200}
              value={caption}
              onChange={setCaption}
              onBlur={keep}
              onKeyDown={(e) => e.key === 'Enter' && keep()}
            />
            {act('←', 'Earlier:', () => arranging.move(picture.id, -1), isFirst)}
            {act('→', 'Later:', () => arranging.move(picture.id, 1), isLast)}
            {act('×', 'Take away', () => arranging.remove(picture.id))}
          </>
        )}
      </figcaption>
    </figure>
  );
}
