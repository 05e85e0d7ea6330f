/** A camera's whole heap of pictures, dealt to the pieces of a lot and looked over before they are added. */
import { dealPictures } from '@jutbank/core/intake';
import type { LotPiece } from '@jutbank/contract/intake';
import { pieceRoutes } from '@jutbank/contract/pieces';
import { Button } from '@mui/material';
import { useEffect, useMemo, useRef, useState } from 'react';
import { ApiProblem, send } from '../base/api.ts';
import { useUnsaved } from '../base/unsaved.ts';
import { FileDrop } from '../parts/FileDrop.tsx';
import { optionsOf, Select } from '../parts/fields/choices.tsx';

interface Heaped {
  readonly file: File;
  readonly url: string;
  /** whom somebody said it shows; null: nobody of them */
  readonly to?: string | null;
  readonly problem?: string;
}
const PER_PIECE = ['1', '2', '3', '4', '5', '6'] as const;
type PerPiece = (typeof PER_PIECE)[number];

/** @param pieces those that are here, in their order */
export function LotPictures({ pieces, onAdded }: { pieces: readonly LotPiece[]; onAdded: () => void }) {
  const [heap, setHeap] = useState<readonly Heaped[]>([]);
  const [perPiece, setPerPiece] = useState<PerPiece>('1');
  const [sent, setSent] = useState<number>();
  const urls = useRef(new Set<string>());
  useUnsaved(heap.length > 0);
  useEffect(() => {
    const made = urls.current;
    return () => made.forEach((url) => URL.revokeObjectURL(url));
  }, []);
  const bare = useMemo(() => {
    const without = pieces.filter((piece) => piece.pictures === 0);
    return without.length > 0 ? without : pieces;
  }, [pieces]);
  // a number in a name finds any piece; by turn only those are dealt to that have none
  const dealt = useMemo(() => {
    const byName = dealPictures(
      heap.map((h) => h.file.name),
      pieces,
      Number(perPiece),
      bare,
    );
    return heap.map((h, i) => (h.to === undefined ? (byName[i] ?? null) : h.to));
  }, [heap, pieces, bare, perPiece]);

  const add = (files: readonly File[]) =>
    setHeap((now) => [
      ...now,
      ...files
        .filter((file) => file.type.startsWith('image/'))
        .map((file) => {
          const url = URL.createObjectURL(file);
          urls.current.add(url);
          return { file, url };
        }),
    ]);
  const sendAll = async () => {
    for (const [i, sent] of heap.entries()) {
      setSent(i);
      const to = dealt[i];
      if (to == null) continue;
      const form = new FormData();
      form.set('file', sent.file);
      try {
        await send(pieceRoutes.addPicture, { params: { id: to }, body: form });
        setHeap((now) => now.filter((h) => h.url !== sent.url));
      } catch (error) {
        // it stays with whom it was meant for, however the others are dealt from now on
        const problem = error instanceof ApiProblem ? error.message : String(error);
        setHeap((now) => now.map((h) => (h.url === sent.url ? { ...h, to, problem } : h)));
      }
    }
    setSent(undefined);
    onAdded();
  };
  const given = dealt.filter((to) => to !== null).length;
  const choices = pieces.map((piece) => ({ value: piece.id, label: `${piece.stockNumber} ${piece.title}` }));
  return (
    <section aria-label="Pictures of the lot" className="lotpictures">
      <FileDrop label="Choose pictures of the lot" onFiles={add}>
        Drop or choose the pictures of all of them: they are dealt out in the order they were taken
      </FileDrop>
      {heap.length > 0 && (
        <>
          <div className="dealt">
            {heap.map((h, i) => (
              <figure key={h.url}>
                <img src={h.url} alt={h.file.name} />
                <figcaption>
                  <span className="soft mono">{h.file.name}</span>
                  <Select
                    label="Shows"
                    none="nobody’s: left out"
                    value={dealt[i] ?? null}
                    options={choices}
                    problem={h.problem}
                    disabled={sent !== undefined}
                    onChange={(to) => setHeap((now) => now.map((x) => (x.url === h.url ? { ...x, to } : x)))}
                  />
                </figcaption>
              </figure>
            ))}
          </div>
          <div className="submit">
            <Select
              label="Taken of each"
              value={perPiece}
              options={optionsOf(PER_PIECE, (n) => (n === '1' ? '1 picture' : `${n} pictures`))}
              disabled={sent !== undefined}
              onChange={(n) => n !== null && setPerPiece(n)}
            />
            <Button
              variant="contained"
              disabled={given === 0 || sent !== undefined}
              onClick={() => void sendAll()}
            >
              {sent === undefined ? `Add ${given} of ${heap.length} pictures` : `Adding the ${sent + 1}. …`}
            </Button>
            <Button
              variant="text"
              className="quiet"
              disabled={sent !== undefined}
              onClick={() => setHeap([])}
            >
              Leave them
            </Button>
          </div>
        </>
      )}
    </section>
  );
}
