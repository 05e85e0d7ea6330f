/** One thing to look at, with its choices: numbered chips, drawn marks, a line for a measure or a stamp. */
import { Button, ButtonBase } from '@mui/material';
import { LineInput } from '../parts/fields/LineInput.tsx';
import { useState } from 'react';
import type { Observation } from '@jutbank/core/bench';
import type { DrawingRecipe } from '@jutbank/core/drawing';
import type { Feature } from '@jutbank/core/reference';
import { dimensionOfUnit, formatQuantity, habitsOf, parseQuantity, roundSize } from '@jutbank/core/units';
import type { Vocabulary } from '@jutbank/contract/reference';
import { MarkDrawing } from '../parts/Drawn.tsx';
import { stampCaption } from '../parts/stampCaption.ts';
import { Roving } from '../parts/Roving.tsx';
import { ToldApart } from './ToldApart.tsx';
import { CodeReader } from './CodeReader.tsx';
import { onEnter } from './onEnter.ts';
import { ChoiceDrawing, useChoiceDrawings } from '../reference/ChoiceDrawing.tsx';
import { choicesOf, COUNT_CHIPS, type Choice } from './choices.ts';
import type { Item } from './items.ts';

const same = (a: Observation | undefined, b: Observation): boolean => {
  if (!a) return false;
  if ('mark' in a && 'mark' in b) return a.mark === b.mark;
  return 'value' in a && 'value' in b && a.feature === b.feature && a.value === b.value;
};

interface Props {
  readonly item: Item;
  readonly vocabulary: Vocabulary;
  readonly observed: Observation | undefined;
  readonly onObserve: (o: Observation | undefined) => void;
  /** the item in hand: its keys are live and its line takes the focus */
  readonly inHand?: boolean;
  /** the piece as far as it is known: choices are drawn on it */
  readonly recipe?: DrawingRecipe | undefined;
}

export function Answering({ item, vocabulary, observed, onObserve, inHand = false, recipe }: Props) {
  const drawings = useChoiceDrawings(inHand && item.kind === 'feature' ? item.feature : undefined, recipe);
  if (item.kind === 'number')
    return <NumberLine part={item.part} observed={observed} onObserve={onObserve} inHand={inHand} />;
  if (item.kind === 'mark' || item.kind === 'afterwards')
    return (
      <MarkPicker
        item={item}
        vocabulary={vocabulary}
        observed={observed}
        onObserve={onObserve}
        inHand={inHand}
      />
    );
  if (item.kind === 'code')
    return (
      <CodeReader
        code={item.code}
        stamp={vocabulary.marks.find((m) => m.codes?.includes(item.code.id))}
        observed={observed}
        onObserve={onObserve}
        inHand={inHand}
      />
    );
  if (item.feature.kind === 'measure')
    return <MeasureLine feature={item.feature} observed={observed} onObserve={onObserve} inHand={inHand} />;
  const drawn = ({ make }: Choice) => {
    const drawing = 'value' in make ? drawings.get(String(make.value)) : undefined;
    return drawing && <ChoiceDrawing drawing={drawing} />;
  };
  return (
    <Roving className="chips" role="group" aria-label={item.label}>
      {choicesOf(item).map((choice, i) => (
        <ButtonBase
          key={choice.label}
          className={drawn(choice) ? 'chip drawn' : 'chip'}
          aria-pressed={same(observed, choice.make)}
          onClick={() => onObserve(same(observed, choice.make) ? undefined : choice.make)}
        >
          {drawn(choice)}
          <span>
            {i < 9 && choice.label !== String(i + 1) && <i>{i + 1}</i>}
            {choice.label}
          </span>
        </ButtonBase>
      ))}
      {item.feature.kind === 'category'
        ? (inHand || (observed && 'other' in observed)) && (
            <SomethingElse feature={item.feature} observed={observed} onObserve={onObserve} />
          )
        : (item.feature.kind === 'count' || item.feature.kind === 'text') && (
            <TypedReading feature={item.feature} observed={observed} onObserve={onObserve} />
          )}
      <StateChips feature={item.feature} observed={observed} onObserve={onObserve} inHand={inHand} />
    </Roving>
  );
}

/** A count beyond the chips, or plain text as it stands. */
function TypedReading({
  feature,
  observed,
  onObserve,
}: {
  feature: Feature;
  observed: Observation | undefined;
  onObserve: Props['onObserve'];
}) {
  const counted = feature.kind === 'count';
  const value = observed && 'value' in observed ? observed.value : undefined;
  const offered = counted
    ? COUNT_CHIPS.some((n) => n === value)
    : (feature.values ?? []).some((v) => v.id === value);
  const before = value === undefined || offered ? '' : String(value);
  const [typed, setTyped] = useState(before);
  const whole = /^\d{1,5}$/.test(typed.trim());
  const take = () => {
    const text = typed.trim();
    if (text === before) return;
    if (text === '') onObserve(undefined);
    else if (!counted) onObserve({ feature: feature.id, value: text });
    else if (whole) onObserve({ feature: feature.id, value: Number(text) });
  };
  return (
    <LineInput
      style={{ width: counted ? 56 : 140 }}
      value={typed}
      inputMode={counted ? 'numeric' : 'text'}
      maxLength={counted ? 5 : 200}
      label={`${feature.label}, ${counted ? 'more' : 'in other words'}`}
      invalid={counted && typed.trim() !== '' && !whole}
      hint={counted ? 'more' : 'as it stands'}
      onChange={setTyped}
      onBlur={take}
      onKeyDown={onEnter(take)}
    />
  );
}

/** What no value of the list says: kept as it is written, and asked about in the reference's open questions. */
function SomethingElse({
  feature,
  observed,
  onObserve,
}: {
  feature: Feature;
  observed: Observation | undefined;
  onObserve: Props['onObserve'];
}) {
  const before = observed && 'other' in observed ? observed.other : '';
  const [typed, setTyped] = useState(before);
  const text = typed.trim();
  const listed = feature.values?.find((v) => v.label.toLowerCase() === text.toLowerCase());
  const take = () => {
    if (text === before) return;
    // what the list has is chosen from it, however it was written
    if (listed) onObserve({ feature: feature.id, value: listed.id });
    else onObserve(text === '' ? undefined : { feature: feature.id, other: text });
  };
  return (
    <LineInput
      style={{ width: 150 }}
      value={typed}
      maxLength={120}
      label={`${feature.label}, something else`}
      hint="something else"
      onChange={setTyped}
      onBlur={take}
      onKeyDown={onEnter(take)}
    />
  );
}

/** In the list below the box these two are as small as their keys; the box spells them out. */
function StateChips({
  feature,
  observed,
  onObserve,
  inHand,
}: {
  feature: Feature;
  observed: Observation | undefined;
  onObserve: Props['onObserve'];
  inHand: boolean;
}) {
  const state = observed && 'state' in observed ? observed.state : undefined;
  const hasNone = feature.values?.some((v) => v.id === 'none') ?? false;
  return (
    <>
      {!hasNone && feature.kind !== 'measure' && (
        <ButtonBase
          className="chip"
          aria-pressed={state === 'not-there'}
          title="Not there"
          onClick={() =>
            onObserve(state === 'not-there' ? undefined : { feature: feature.id, state: 'not-there' })
          }
        >
          <i>0</i>
          <StateWords words="Not there" sign="∅" spelled={inHand || state === 'not-there'} />
        </ButtonBase>
      )}
      <ButtonBase
        className="chip"
        aria-pressed={state === 'cannot-tell'}
        title="Cannot tell"
        onClick={() =>
          onObserve(state === 'cannot-tell' ? undefined : { feature: feature.id, state: 'cannot-tell' })
        }
      >
        <i>-</i>
        <StateWords words="Cannot tell" sign="?" spelled={inHand || state === 'cannot-tell'} />
      </ButtonBase>
    </>
  );
}

function StateWords({ words, sign, spelled }: { words: string; sign: string; spelled: boolean }) {
  if (spelled) return words;
  return (
    <>
      <span aria-hidden="true">{sign}</span>
      <span className="visually-hidden">{words}</span>
    </>
  );
}

function MeasureLine({
  feature,
  observed,
  onObserve,
  inHand,
}: {
  feature: Feature;
  observed: Observation | undefined;
  onObserve: Props['onObserve'];
  inHand: boolean;
}) {
  const dimension = dimensionOfUnit(feature.unit);
  const known = observed && 'measure' in observed ? observed : undefined;
  const before = known?.text ?? known?.measure.toString() ?? '';
  const [typed, setTyped] = useState(before);
  const parsed = typed.trim() === '' ? undefined : parseQuantity(typed, dimension, habitsOf(feature.label));
  const wrong = parsed && !parsed.ok ? parsed.error.message : undefined;
  const take = () => {
    // leaving the field without a change says nothing new
    if (typed.trim() === before) return;
    if (!parsed) onObserve(undefined);
    else if (parsed.ok)
      onObserve({
        feature: feature.id,
        measure: roundSize(parsed.value.value),
        resolution: roundSize(parsed.value.resolution),
        text: parsed.value.text,
      });
  };
  return (
    <span>
      <span className="chips" style={{ alignItems: 'center' }}>
        <LineInput
          style={{ width: 120 }}
          value={typed}
          autoFocus={inHand}
          inputMode="decimal"
          label={feature.label}
          invalid={wrong !== undefined}
          hint={dimension === 'mass' ? '62 g, 2.2 oz' : '104.8, 4 1/8'}
          onChange={setTyped}
          onBlur={take}
          onKeyDown={onEnter(take)}
        />
        <StateChips feature={feature} observed={observed} onObserve={onObserve} inHand={inHand} />
      </span>
      {wrong !== undefined ? (
        <span className="problem" role="alert">
          {wrong}
        </span>
      ) : (
        known && (
          <span className="soft num">
            {formatQuantity(known.measure, dimension, known.resolution ?? 0.1)}
          </span>
        )
      )}
    </span>
  );
}

/** The number struck on a part, as it stands. */
function NumberLine({
  part,
  observed,
  onObserve,
  inHand,
}: {
  part: string;
  observed: Observation | undefined;
  onObserve: Props['onObserve'];
  inHand: boolean;
}) {
  const before = observed && 'number' in observed ? observed.number : '';
  const [typed, setTyped] = useState(before);
  const take = () => {
    const number = typed.trim();
    if (number === before) return;
    onObserve(number === '' ? undefined : { part, number });
  };
  return (
    <LineInput
      style={{ width: 120 }}
      value={typed}
      autoFocus={inHand}
      maxLength={40}
      label={`Number on the ${part}`}
      hint="as struck"
      onChange={setTyped}
      onBlur={take}
      onKeyDown={onEnter(take)}
    />
  );
}

function MarkPicker({ item, vocabulary, observed, onObserve, inHand }: Props) {
  const [filter, setFilter] = useState('');
  const choices = choicesOf(item, filter);
  const chosen =
    observed && 'mark' in observed ? vocabulary.marks.find((m) => m.id === observed.mark) : undefined;
  if (!inHand)
    return chosen ? (
      <span style={{ display: 'flex', gap: 8, alignItems: 'center' }}>
        <MarkDrawing mark={chosen} width={92} />
        <Button variant="text" className="quiet soft" onClick={() => onObserve(undefined)}>
          not this
        </Button>
      </span>
    ) : (
      <span className="soft">not looked at yet</span>
    );
  return (
    <div>
      <LineInput
        value={filter}
        autoFocus
        label="Letters you can read"
        hint="Letters, ? for others"
        style={{ width: '100%', marginBottom: 6 }}
        onChange={setFilter}
        onKeyDown={onEnter(() => {
          const [first] = choices;
          if (filter.trim() !== '' && first) onObserve(first.make);
        })}
      />
      <Roving className="marks" role="group" aria-label={item.label}>
        {choices.map((choice, i) => (
          <button
            key={choice.label + i}
            type="button"
            className="markpick"
            aria-pressed={same(observed, choice.make)}
            aria-label={choice.label}
            onClick={() => onObserve(choice.make)}
          >
            {i < 9 && <i>{i + 1}</i>}
            {choice.mark && <MarkDrawing mark={choice.mark} codes={vocabulary.codes} width={124} />}
            {choice.mark && <span className="stamp-caption">{stampCaption(choice.mark)}</span>}
          </button>
        ))}
        {choices.length === 0 && (
          <p className="soft">
            No stamp of the reference reads so. Record it as an open question on the piece.
          </p>
        )}
      </Roving>
      <ToldApart marks={choices.flatMap((choice) => choice.mark ?? [])} codes={vocabulary.codes} />
    </div>
  );
}
