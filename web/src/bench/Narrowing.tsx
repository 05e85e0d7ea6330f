/** What leaves only a part of the reference to be asked about: what one knows at once, and what a sure stamp says. */
import { benchRoutes } from '@jutbank/contract/bench';
import { ReferencePicker } from '../parts/fields/choices.tsx';
import { useMutation } from '@tanstack/react-query';
import type { RefObject } from 'react';
import type { IdentifyAnswer } from '@jutbank/core/bench';
import type { PieceSheet, NarrowingBody } from '@jutbank/contract/pieces';
import type { Vocabulary } from '@jutbank/contract/reference';
import { send } from '../base/api.ts';
import { inLine, useTakeSheet } from '../pieces/usePiece.ts';
import { constructionInWords } from '../parts/words.ts';
import { Wording } from './wording.ts';

export function Narrowing({
  sheet,
  answer,
  vocabulary,
  mayWork,
  field,
}: {
  sheet: PieceSheet;
  answer: IdentifyAnswer | undefined;
  vocabulary: Vocabulary;
  mayWork: boolean;
  /** the maker's field, for the key that leads there */
  field: RefObject<HTMLInputElement | null>;
}) {
  const takeSheet = useTakeSheet();
  const words = new Wording(vocabulary);
  const { makers, patterns } = sheet.narrowing;
  const narrow = useMutation({
    mutationFn: (body: NarrowingBody) =>
      inLine(sheet.id, () =>
        send(benchRoutes.putNarrowing, { params: { id: sheet.id }, body, version: sheet.version }),
      ),
    onSuccess: takeSheet,
  });
  const ofConstruction = vocabulary.patterns.filter((p) => p.construction === sheet.intake.construction);
  const withPatterns = new Set(ofConstruction.map((p) => p.maker));
  const offered = vocabulary.makers.filter((m) => withPatterns.has(m.id) || makers.includes(m.id));
  const ofMakers = ofConstruction.filter((p) => makers.length === 0 || makers.includes(p.maker));
  return (
    <div className="narrowing" role="group" aria-label="What is known at once">
      <div className="pair">
        <ReferencePicker
          label="Maker, if you know"
          disabled={!mayWork}
          options={offered.map((m) => ({ value: m.id, label: words.maker(m.id) }))}
          value={makers}
          inputRef={field}
          onChange={(next) =>
            narrow.mutate({
              makers: next,
              patterns: patterns.filter(
                (id) =>
                  next.length === 0 ||
                  next.includes(vocabulary.patterns.find((p) => p.id === id)?.maker ?? ''),
              ),
            })
          }
        />
        <ReferencePicker
          label="Pattern, if you know"
          disabled={!mayWork}
          options={ofMakers.map((p) => ({ value: p.id, label: words.pattern(p.id) }))}
          value={patterns}
          onChange={(next) => narrow.mutate({ makers, patterns: next })}
        />
      </div>
      {narrow.isError && (
        <p className="problem" role="alert">
          {narrow.error.message}
        </p>
      )}
      {(answer?.narrowedBy ?? []).length > 0 && (
        <ul className="soft narrowed">
          {answer?.narrowedBy.map((n) => (
            <li key={`${n.by} ${n.what}`}>
              {n.by === 'stamp' ? 'The stamp ' : 'Only '}
              <b>
                {n.ids
                  .map((id) =>
                    n.what === 'mark'
                      ? words.mark(id)
                      : n.what === 'maker'
                        ? words.maker(id)
                        : n.what === 'pattern'
                          ? words.pattern(id)
                          : constructionInWords(id).toLowerCase(),
                  )
                  .join(', ')}
              </b>
              {n.by === 'stamp' ? ' leaves ' : ': '}
              <span className="num">{n.left}</span> of <span className="num">{variantsIn(vocabulary)}</span>{' '}
              variants
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

const variantsIn = (vocabulary: Vocabulary) => vocabulary.patterns.reduce((sum, p) => sum + p.variants, 0);
