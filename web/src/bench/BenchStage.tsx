/** The bench: what to look at next on the left, the drawn piece and its years in the middle, candidates on the right. */
import { benchKeys } from './benchKeys.ts';
import { Button, ButtonBase } from '@mui/material';
import { gainWords, Wording } from './wording.ts';
import { benchRoutes } from '@jutbank/contract/bench';
import { useMemo, useRef, useState } from 'react';
import {
  CERTAINTIES,
  subjectKey,
  type Certainty,
  type IdentifyAnswer,
  type Observation,
} from '@jutbank/core/bench';
import { anyPattern } from '@jutbank/core/drawing';
import type { Vocabulary } from '@jutbank/contract/reference';
import type { PieceSheet } from '@jutbank/contract/pieces';
import { useMay } from '../base/session.ts';
import { useShortcuts } from '../base/shortcuts.ts';
import { Empty, Failed, Loading } from '../base/states.tsx';
import { useSheet } from '../pieces/useSheet.ts';
import { StageBar } from '../pieces/StageBar.tsx';
import { isHere, useStage } from '../pieces/usePiece.ts';
import { inWords } from '../parts/words.ts';
import { Answering } from './Answering.tsx';
import { Candidates } from './Candidates.tsx';
import { Gauges } from './Gauges.tsx';
import { bitsOf, itemsFor, mostTelling, observedAs, tellsOf, withObserved, type Item } from './items.ts';
import { DatingPanel } from './DatingPanel.tsx';
import { Narrowing } from './Narrowing.tsx';
import { OpenQuestions } from './OpenQuestions.tsx';
import { useIdentification } from './useIdentification.ts';
import { Roving } from '../parts/Roving.tsx';
import { recipeOfVariant } from '../reference/useForms.ts';
import { useVariantNames, useVocabulary } from '../reference/vocabulary.ts';
import { PieceSeen } from './PieceSeen.tsx';
import './bench.css';

const asBody = (observations: readonly Observation[]) => ({ observations });
export default function BenchStage() {
  const sheet = useSheet();
  const vocabulary = useVocabulary();
  if (vocabulary.isPending) return <Loading />;
  if (vocabulary.isError) return <Failed error={vocabulary.error} retry={() => void vocabulary.refetch()} />;
  if (vocabulary.data.features.length === 0)
    return (
      <Empty title="The reference is empty">
        <p className="soft">Import a reference pack first: the bench asks for the features it describes.</p>
      </Empty>
    );
  return <Bench sheet={sheet} vocabulary={vocabulary.data} />;
}

const CERTAINTY_WORDS: Record<Certainty, string> = { sure: 'Certain', likely: 'Likely', unsure: 'Unsure' };

function Bench({ sheet, vocabulary }: { sheet: PieceSheet; vocabulary: Vocabulary }) {
  const mayWork = useMay('work') && isHere(sheet);
  const state = useStage(sheet, benchRoutes.putObservations, sheet.observations, asBody);
  const [telling, setTelling] = useState(true);
  const [inHandId, setInHandId] = useState<string>();
  const [chosen, setChosen] = useState<string>();
  /** the candidate under the pointer */
  const [pointed, setPointed] = useState<string>();
  const makerField = useRef<HTMLInputElement>(null);
  const answer = useIdentification(sheet, state.value);
  const names = useVariantNames([
    ...new Set([
      ...(answer.data?.candidates.map((c) => c.pattern) ?? []),
      ...(answer.data?.history.flatMap((e) => e.from.map((f) => f.pattern)) ?? []),
    ]),
  ]);
  const items = itemsFor(sheet.intake.construction, vocabulary, answer.data, state.value);
  const order = telling ? mostTelling(items, answer.data) : items;
  const open = order.filter((item) => !observedAs(item, state.value));
  // the box never changes under the fingers: what is most telling is asked once the engine has answered
  const waiting = telling && inHandId === undefined && answer.isPlaceholderData && answer.isFetching;
  const inHand = items.find((item) => item.id === inHandId) ?? (waiting ? undefined : open[0]);
  const observed = inHand && observedAs(inHand, state.value);
  const sized = isSize(inHand) ? inHand : undefined;

  const lead = answer.data?.candidates[0];
  const leading = names.get(lead?.variant ?? '')?.variant;
  const recipe = useMemo(() => {
    const pattern = vocabulary.patterns.find((p) => p.id === leading?.pattern);
    return recipeOfVariant(vocabulary, pattern ?? anyPattern(sheet.intake.construction), leading);
  }, [vocabulary, leading, sheet.intake.construction]);
  const words = useMemo(() => new Wording(vocabulary), [vocabulary]);

  const observe = (item: Item, o: Observation | undefined) => {
    if (!mayWork) return;
    state.set(withObserved(item, o, state.value));
    // an answer given moves on to the next thing; a code may want a second sign first, a piece a second stamp
    if (o && item.kind !== 'code' && item.kind !== 'afterwards') setInHandId(undefined);
    else setInHandId(item.id);
  };
  const certain = (certainty: Certainty) => {
    const last = observed ?? state.value.at(-1);
    if (!last || !takesCertainty(last)) return;
    state.set(
      state.value.map((o) =>
        subjectKey(o) === subjectKey(last) ? ({ ...last, certainty } as Observation) : o,
      ),
    );
  };
  const keys = benchKeys({
    items: order,
    inHand,
    observe,
    move: setInHandId,
    undo: state.undo,
    certain,
    toMaker: () => makerField.current?.focus(),
  });
  useShortcuts('The bench', keys);
  const last = observed ?? state.value.at(-1);
  return (
    <div className="threecol">
      <section aria-label="Look at next">
        <StageBar
          title="Look at next"
          state={state}
          aside={
            <Button variant="text" className="quiet soft" onClick={() => setTelling(!telling)}>
              {telling ? 'most telling first' : 'in bench order'}
            </Button>
          }
        />
        <Narrowing
          sheet={sheet}
          answer={answer.data}
          vocabulary={vocabulary}
          mayWork={mayWork}
          field={makerField}
        />
        {state.problem?.errors.map((e) => (
          <p key={e.pointer} className="problem" role="alert">
            {e.message}
          </p>
        ))}
        {waiting ? (
          <div className="askbox" aria-busy="true">
            <div className="q">Weighing what to look at next…</div>
          </div>
        ) : inHand ? (
          <div className="askbox" aria-live="polite">
            {bitsOf(inHand, answer.data) > 0 && (
              <span
                className="gain"
                title={`settles ${bitsOf(inHand, answer.data).toFixed(2)} bit of what is open`}
              >
                {gainWords(bitsOf(inHand, answer.data))}
              </span>
            )}
            {tellsOf(inHand, answer.data) !== undefined && (
              <span className="gain">a counterfeit gives itself away here</span>
            )}
            <div className="big">{inHand.label}</div>
            <div className="q">{inHand.ask}</div>
            <Answering
              key={inHand.id}
              item={inHand}
              vocabulary={vocabulary}
              observed={observed}
              inHand
              recipe={recipe}
              onObserve={(o) => observe(inHand, o)}
            />
          </div>
        ) : (
          <div className="note good">
            <b>All of it has been looked at.</b>Decide on the right, or change an answer below.
          </div>
        )}
        {mayWork && <Gauges inHand={sized?.feature} onReading={(o) => sized && observe(sized, o)} />}
        {last && takesCertainty(last) && (
          <div className="f" style={{ borderTop: 0 }}>
            <span className="fn">{nameOf(last, vocabulary)}</span>
            <Roving className="chips" role="group" aria-label="How certain">
              {CERTAINTIES.map((c) => (
                <ButtonBase
                  key={c}
                  className="chip"
                  aria-pressed={(last.certainty ?? 'sure') === c}
                  onClick={() => certain(c)}
                  disabled={!mayWork}
                >
                  {CERTAINTY_WORDS[c]}
                </ButtonBase>
              ))}
            </Roving>
          </div>
        )}
        <Seen
          items={items}
          inHand={inHand}
          answer={answer.data}
          words={words}
          observations={state.value}
          onTake={setInHandId}
        />
        <OpenQuestions piece={sheet.id} />
      </section>
      <section aria-label="The piece, when and why">
        <PieceSeen
          construction={sheet.intake.construction}
          observations={state.value}
          lead={lead}
          under={pointed}
          inHand={inHand}
          vocabulary={vocabulary}
          names={names}
          onTake={(feature) => setInHandId(`feature ${feature.id}`)}
        />
        {answer.data ? (
          <DatingPanel
            answer={answer.data}
            vocabulary={vocabulary}
            chosen={chosen}
            observations={state.value}
            sheet={sheet}
            names={names}
          />
        ) : (
          <Loading />
        )}
      </section>
      <section aria-label="Candidates">
        {answer.data && (
          <Candidates
            sheet={sheet}
            answer={answer.data}
            vocabulary={vocabulary}
            chosen={chosen}
            onChoose={setChosen}
            saved={state.saving === 'saved'}
            names={names}
            onPoint={setPointed}
          />
        )}
      </section>
    </div>
  );
}

const isSize = (item: Item | undefined): item is Extract<Item, { kind: 'feature' }> =>
  item?.kind === 'feature' && item.feature.kind === 'measure';

/** What was not seen, or is plain text to compare, is not more or less certain. */
const takesCertainty = (o: Observation): o is Exclude<Observation, { state: unknown } | { number: string }> =>
  !('state' in o) && !('number' in o);

function nameOf(o: Observation, vocabulary: Vocabulary): string {
  if ('mark' in o) return 'Stamp';
  if ('code' in o) return vocabulary.codes.find((c) => c.id === o.code)?.title ?? o.code;
  if ('number' in o) return `Number on the ${o.part}`;
  return vocabulary.features.find((f) => f.id === o.feature)?.label ?? o.feature;
}

const EFFORT_WORDS: Record<string, string> = {
  glance: 'At a glance',
  open: 'Opened',
  loupe: 'With the loupe',
  gauge: 'Gauge',
  strip: 'Taken apart',
};

/** All there is to look at, with what was read; a click takes it in hand. */
function Seen({
  items,
  inHand,
  answer,
  words,
  observations,
  onTake,
}: {
  items: readonly Item[];
  inHand: Item | undefined;
  answer: IdentifyAnswer | undefined;
  words: Wording;
  observations: readonly Observation[];
  onTake: (id: string) => void;
}) {
  const groups = [...new Set(items.map((i) => i.effort))];
  return (
    <Roving className="looked" role="group" aria-label="All there is to look at">
      {groups.map((effort) => (
        <div key={effort}>
          <div className="effort">{EFFORT_WORDS[effort] ?? inWords(effort)}</div>
          {items
            .filter((item) => item.effort === effort)
            .map((item) => {
              const observed = observedAs(item, observations);
              const bits = observed ? 0 : bitsOf(item, answer);
              return (
                <button
                  key={item.id}
                  type="button"
                  className={observed ? 'look seen' : 'look'}
                  aria-current={item.id === inHand?.id ? 'step' : undefined}
                  onClick={() => onTake(item.id)}
                >
                  <span className="fn">{item.label}</span>
                  <span className="read">{observed ? words.observed(observed) : 'not looked at'}</span>
                  <span className="num">{bits > 0.005 ? bits.toFixed(2) : ''}</span>
                </button>
              );
            })}
        </div>
      ))}
    </Roving>
  );
}
