/** At the table: which it is. Typed, read off the tang, tapped through, or photographed and found out at home. */
import { Button, InputBase } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState, type ReactNode } from 'react';
import type { Observation } from '@jutbank/core/bench';
import { referenceRoutes } from '@jutbank/contract/reference';
import { edtfInWords } from '@jutbank/core/dates';
import type { FairCandidate, FairCheck, FairHit, FairSight } from '@jutbank/core/fair';
import { CONSTRUCTIONS, type Mark } from '@jutbank/core/reference';
import { dimensionOfUnit, habitsOf, parseQuantity, roundSize } from '@jutbank/core/units';
import { useAnswer } from '../base/answers.ts';
import { Failed } from '../base/states.tsx';
import { MarkDrawing } from '../parts/Drawn.tsx';
import { FileChooser } from '../parts/FileChooser.tsx';
import { optionsOf, Select } from '../parts/fields/choices.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { stampCaption } from '../parts/stampCaption.ts';
import { CONSTRUCTION_WORDS, sentence } from '../parts/words.ts';
import { FormDrawing } from '../reference/FormDrawing.tsx';
import { ReadCode } from './ReadCode.tsx';
import type { Chosen, Seen, Table } from './table.ts';

export function Find({
  table,
  onPick,
  onSee,
  onPhotograph,
}: {
  table: Table;
  onPick: (pattern: Chosen, variant?: string) => void;
  onSee: (seen: Seen) => void;
  /** undefined: a photograph is there already */
  onPhotograph: ((file: File) => void) | undefined;
}) {
  const [words, setWords] = useState('');
  const asked = useDeferredValue(words.trim());
  const found = useQuery({
    queryKey: ['fair', table.name, 'search', asked],
    queryFn: () => table.search(asked),
    enabled: asked !== '',
    retry: false,
  });
  const hits = asked === '' ? [] : (found.data ?? []);
  const nothing = asked !== '' && found.isSuccess && hits.length === 0;
  const vocabulary = useAnswer(referenceRoutes.vocabulary, { once: true }, { enabled: nothing });
  const take = (hit: FairHit) => {
    if (hit.make) onSee(hit.mark ? stampSeen(hit.mark, hit.make) : { label: hit.hint, make: hit.make });
    if (hit.pattern) onPick(hit.pattern, hit.kind === 'variant' ? hit.id : undefined);
    setWords('');
  };
  return (
    <section>
      <InputBase
        className="pickbox"
        fullWidth
        placeholder="Name, number, or what is stamped on it"
        autoFocus
        value={words}
        inputProps={{
          'aria-label': 'Which is it? Name, number, or what is stamped on it',
          autoComplete: 'off',
          autoCapitalize: 'none',
          enterKeyHint: 'search',
        }}
        onChange={(e) => setWords(e.target.value)}
        onKeyDown={(e) => {
          if (e.key !== 'Enter' || words.trim() === '') return;
          // what stands there may be of the letters before the last
          void table.search(words.trim()).then(
            ([first]) => first && take(first),
            () => undefined,
          );
        }}
      />
      {hits.length > 0 && (
        <div className="found">
          {hits.map((hit) => (
            <button key={`${hit.kind} ${hit.id}`} type="button" onClick={() => take(hit)}>
              {hit.mark && <MarkDrawing mark={hit.mark} width={124} />}
              <span>
                <b>{hit.label}</b>
                <span className="soft">{hit.mark ? stampCaption(hit.mark) : hit.hint}</span>
              </span>
            </button>
          ))}
        </div>
      )}
      {found.isError && <Failed error={found.error} retry={() => void found.refetch()} />}
      {nothing && (
        <p className="soft none" role="status">
          {vocabulary.data?.patterns.length === 0
            ? 'The reference is empty: without it nothing can be named or priced. Import a pack first.'
            : 'Nothing in the reference is called or stamped so. A letter that cannot be read is a ?.'}
        </p>
      )}
      {onPhotograph && (
        <FileChooser label="Photograph it" accept="image/*" camera onChoose={onPhotograph}>
          Photograph it; which it is can wait
        </FileChooser>
      )}
    </section>
  );
}

/** What was seen so far, each taken back by a tap; and what the engine makes of it. */
export function Sight({
  table,
  seen,
  sight,
  picked,
  form,
  onForget,
  onPick,
  onForm,
}: {
  table: Table;
  seen: readonly Seen[];
  sight: FairSight | undefined;
  picked: boolean;
  /** the form a person says it is, '' where it is left open */
  form: string;
  onForget: (seen: Seen) => void;
  onPick: (pattern: Chosen) => void;
  onForm: (variant: string) => void;
}) {
  return (
    <>
      {seen.length > 0 && (
        <div className="seen" role="group" aria-label="Seen">
          {seen.map((one) => (
            <button
              key={one.label}
              type="button"
              aria-label={`Take back ${one.label}`}
              onClick={() => onForget(one)}
            >
              {one.label} <span aria-hidden="true">×</span>
            </button>
          ))}
        </div>
      )}
      {sight?.alerts.map((alert) => (
        <p key={alert} className="note bad" role="alert">
          {alert}
        </p>
      ))}
      {sight && sight.candidates.length > 0 && (
        <section>
          <h2>{picked ? 'Its form' : 'Which it may be'}</h2>
          <ul className="candidates">
            {sight.candidates.map((candidate) => (
              <Candidate
                key={candidate.variant}
                table={table}
                candidate={candidate}
                chosen={picked ? candidate.variant === form : undefined}
                onTake={() =>
                  picked
                    ? onForm(candidate.variant === form ? '' : candidate.variant)
                    : onPick({
                        id: candidate.pattern,
                        name: candidate.patternName,
                        construction: candidate.construction,
                      })
                }
              />
            ))}
          </ul>
          <p className="soft">
            {sentence(sight.tier)}
            {sight.made !== null && `; made ${edtfInWords(sight.made)}`}
            {sight.unlisted > 0.02 && `; ${hundred(sight.unlisted)} for none of these`}
          </p>
        </section>
      )}
    </>
  );
}

const hundred = (share: number): string => `${Math.round(100 * share)} in 100`;

function Candidate({
  table,
  candidate,
  chosen,
  onTake,
}: {
  table: Table;
  candidate: FairCandidate;
  /** among the forms of a picked pattern: whether it is the one; undefined while the pattern is open */
  chosen: boolean | undefined;
  onTake: () => void;
}) {
  const { variant, patternName, construction, name, maker, window, probability } = candidate;
  const form = useQuery({
    queryKey: ['fair', table.name, 'form', variant],
    queryFn: () => table.recipe({ construction, variant }),
    retry: false,
  });
  const ofPattern = chosen !== undefined;
  const told = [ofPattern ? undefined : maker, window === null ? undefined : edtfInWords(window)];
  return (
    <li>
      <button type="button" aria-pressed={chosen} onClick={onTake}>
        <span className="drawn">
          {form.data && <FormDrawing recipe={form.data} width={92} height={44} label="" />}
        </span>
        <span>
          <b>{ofPattern ? name : `${patternName}, ${name}`}</b>
          <span className="soft">{told.filter(Boolean).join(', ')}</span>
        </span>
        <span className="share">{hundred(probability)}</span>
      </button>
    </li>
  );
}

/** What to look at next, the most telling first; each is answered by a tap. */
export function Checks({ sight, onSee }: { sight: FairSight | undefined; onSee: (seen: Seen) => void }) {
  return sight?.checks.map((check) => <Check key={check.ask} check={check} onSee={onSee} />);
}

function Check({ check, onSee }: { check: FairCheck; onSee: (seen: Seen) => void }) {
  return (
    <section className="check">
      <h2>{check.ask}</h2>
      {check.measure && <Size measure={check.measure} onSee={onSee} />}
      {check.code ? (
        <ReadCode ask={check.ask} code={check.code} onSee={onSee} />
      ) : (
        <div className="choices" role="group" aria-label={check.ask}>
          {check.choices.map((choice) => (
            <button
              key={JSON.stringify(choice.make)}
              type="button"
              onClick={() =>
                onSee(
                  choice.mark
                    ? stampSeen(choice.mark, choice.make)
                    : { label: seenAs(check, choice.label), make: choice.make },
                )
              }
            >
              {choice.mark && <MarkDrawing mark={choice.mark} width={200} />}
              {choice.label}
              {choice.mark && <small>{stampCaption(choice.mark)}</small>}
            </button>
          ))}
          {check.other !== undefined && <SomethingElse check={check} feature={check.other} onSee={onSee} />}
        </div>
      )}
    </section>
  );
}

/** A field and its act: Enter takes what was typed, as soon as it can be. */
function TypedLine({
  words,
  ready,
  onTake,
  children,
}: {
  words: string;
  ready: boolean;
  onTake: () => void;
  children: ReactNode;
}) {
  return (
    <form
      className="typed"
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        if (ready) onTake();
      }}
    >
      {children}
      <Button type="submit" disabled={!ready}>
        {words}
      </Button>
    </form>
  );
}

/** A size off the rule, the caliper or the scale, as it reads. */
function Size({
  measure: { feature, label, unit },
  onSee,
}: {
  measure: NonNullable<FairCheck['measure']>;
  onSee: (seen: Seen) => void;
}) {
  const [typed, setTyped] = useState('');
  const dimension = dimensionOfUnit(unit);
  const read = parseQuantity(typed, dimension, habitsOf(label));
  return (
    <TypedLine
      words="Measured"
      ready={read.ok}
      onTake={() => {
        if (!read.ok) return;
        const { value, resolution, text } = read.value;
        onSee({
          label: `${label}: ${text}`,
          make: { feature, measure: roundSize(value), resolution: roundSize(resolution), text },
        });
      }}
    >
      <TextInput
        label={label}
        inputMode="decimal"
        placeholder={dimension === 'mass' ? '62 g, 2.2 oz' : '104.8, 4 1/8'}
        value={typed}
        problem={typed.trim() === '' || read.ok ? undefined : read.error.message}
        onChange={setTyped}
      />
    </TypedLine>
  );
}

/** What no value of the list says, as it is written. */
function SomethingElse({
  check,
  feature,
  onSee,
}: {
  check: FairCheck;
  feature: string;
  onSee: (seen: Seen) => void;
}) {
  const [typed, setTyped] = useState('');
  const other = typed.trim();
  return (
    <TypedLine
      words="Take it"
      ready={other !== ''}
      onTake={() => onSee({ label: seenAs(check, other), make: { feature, other } })}
    >
      <TextInput label="Something else" maxLength={120} value={typed} onChange={setTyped} />
    </TypedLine>
  );
}

const stampSeen = (mark: Mark, make: Observation): Seen => ({
  label: `Stamp ${mark.lines.join(' / ')}`,
  make,
  ...(mark.history == null ? { ofMaking: true } : {}),
});
const seenAs = ({ ask }: FairCheck, label: string): string =>
  `${ask.replace(/[?:].*$/, '')}: ${label.toLowerCase()}`;

/** A piece nobody has named yet: what to call it until then, and what kind of thing it is. */
export function Unnamed({ value, onChange }: { value: Chosen; onChange: (chosen: Chosen) => void }) {
  return (
    <section className="unnamed">
      <TextInput
        label="Working name"
        value={value.name}
        placeholder="Bone jack, second table"
        onChange={(name) => onChange({ ...value, name })}
      />
      <Select
        label="What it is"
        value={value.construction}
        options={optionsOf(CONSTRUCTIONS, (c) => CONSTRUCTION_WORDS[c] ?? c)}
        onChange={(construction) => construction !== null && onChange({ ...value, construction })}
      />
      <p className="soft">
        There is no ceiling for what nobody knows. Pick a pattern above as soon as it has a name.
      </p>
    </section>
  );
}
