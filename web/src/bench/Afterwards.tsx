/** What happened to the piece after it was made, and whether its numbers belong together. */
import type { HistoryEvent, IdentifyAnswer, NumbersAnswer } from '@jutbank/core/bench';
import { edtfInWords } from '@jutbank/core/dates';
import type { VariantNames } from '../reference/vocabulary.ts';
import { inWords } from '../parts/words.ts';
import type { Wording } from './wording.ts';

const DONE: Record<HistoryEvent['what'], string> = {
  're-issue': 'Issued again',
  're-work': 'Re-worked',
  conversion: 'Converted',
};

export function Afterwards({
  answer,
  words,
  names,
}: {
  answer: IdentifyAnswer;
  words: Wording;
  names: VariantNames;
}) {
  if (answer.history.length === 0 && !answer.numbers) return null;
  return (
    <>
      <h2 className="sec" style={{ marginTop: 14 }}>
        After it was made <small>history, not damage</small>
      </h2>
      <ul className="afterwards">
        {answer.history.map((event) => (
          <li key={JSON.stringify(event.because)}>
            <span className="num">{event.window === null ? 'undated' : edtfInWords(event.window)}</span>
            <span>
              <b>{DONE[event.what]}</b>
              {event.from.length > 0 &&
                ` from ${event.from.map((f) => names.get(f.variant)?.label ?? inWords(f.variant)).join(' or ')}`}
              {'mark' in event.because && `, by the stamp ${words.mark(event.because.mark)}`}
              {event.changed.length > 0 &&
                `; ${event.changed.map((id) => words.feature(id).toLowerCase()).join(', ')} changed with it`}
              {event.source !== null && (
                <span className="soft"> ({words.source(event.source, event.page)})</span>
              )}
            </span>
          </li>
        ))}
        {answer.numbers && (
          <li>
            <span className="num">{answer.numbers.parts[0]?.number}</span>
            <Numbers numbers={answer.numbers} />
          </li>
        )}
      </ul>
    </>
  );
}

function Numbers({ numbers }: { numbers: NumbersAnswer }) {
  const [leading, ...others] = numbers.parts;
  const apart = others
    .filter((p) => !p.agrees)
    .map((p) => `${p.part} (${p.number})`)
    .join(' and ');
  const parts = [leading, ...others].map((p) => p?.part).join(', ');
  if (numbers.verdict === 'one-only')
    return <span>Number on the {parts} only: nothing to hold it against.</span>;
  if (numbers.verdict === 'matching')
    return (
      <span>
        <b className="ok">Matching numbers</b> on {parts}: issued together.
      </span>
    );
  return (
    <span>
      <b className="warn">Numbers differ</b>: the {apart} came from another piece than the {leading?.part}.
    </span>
  );
}
