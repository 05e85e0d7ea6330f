/** One thing to look at after the other, answered by number keys; a whole section is good at one stroke. */
import { useEffect, useMemo, useState } from 'react';
import type { DrawingRecipe } from '@jutbank/core/drawing';
import type { CountedParts } from '@jutbank/core/pieces';
import type { Construction } from '@jutbank/core/reference';
import { useShortcuts } from '../base/shortcuts.ts';
import { Roving } from '../parts/Roving.tsx';
import { sentence } from '../parts/words.ts';
import { Counts } from './Counts.tsx';
import { InHand } from './InHand.tsx';
import { useInspectKeys } from './inspectKeys.ts';
import {
  allGood,
  findingOf,
  lookList,
  nextOpen,
  sectionOf,
  seenOf,
  withItem,
  withStep,
  type Body,
  type Draft,
  type HowBad,
  type Looked,
  type Seen,
} from './inspecting.ts';

interface Inspected extends Body {
  readonly inspected: boolean;
}
interface Props<B extends Inspected> {
  readonly construction: Construction;
  readonly body: B;
  readonly may: boolean;
  /** also asks what is with the piece */
  readonly items: boolean;
  /** how many blades and tools the bench or the form has, and what the blades are called */
  readonly parts: CountedParts;
  readonly recipe: DrawingRecipe;
  /** told the part that is in hand, to be shown on a drawing beside */
  readonly onLook?: (part: string | undefined) => void;
  readonly onChange: (body: B) => void;
  readonly onUndo: () => void;
}

export function Inspect<B extends Inspected>({
  construction,
  body,
  may,
  items,
  parts,
  recipe,
  onLook,
  onChange,
  onUndo,
}: Props<B>) {
  const { blades, tools } = body.inspection;
  const list = useMemo(
    () => lookList(construction, { blades, tools }, items),
    [construction, blades, tools, items],
  );
  const [chosen, setChosen] = useState<number>();
  const [draft, setDraft] = useState<Draft>();
  const at =
    chosen !== undefined && chosen < list.length
      ? chosen
      : body.inspected
        ? undefined
        : nextOpen(list, body, 0);
  const looked = at === undefined ? undefined : list[at];
  const part = looked?.kind === 'step' ? looked.step.part : undefined;
  useEffect(() => onLook?.(part), [onLook, part]);

  const go = (to: number | undefined) => {
    setDraft(undefined);
    setChosen(to);
  };
  /** Says something of what is in hand and goes on to the next thing nobody looked at. */
  const say = (next: Body) => {
    if (!may || at === undefined) return;
    onChange({ ...body, ...next });
    go(nextOpen(list, { ...body, ...next }, at + 1));
  };
  const add = (bad: HowBad) => {
    if (!may || !draft) return;
    onChange({ ...body, findings: [...body.findings, findingOf(draft, bad)] });
    setDraft(undefined);
    // stays: there may be more of it here
    setChosen(at);
  };
  const keys = useInspectKeys({
    construction,
    looked,
    list,
    at,
    body,
    draft,
    may,
    setDraft,
    say,
    add,
    go,
    undo: onUndo,
  });
  useShortcuts('Inspection', keys);
  const open = list.filter((l) => seenOf(l, body) === undefined);
  return (
    <>
      <Counts
        construction={construction}
        inspection={body.inspection}
        parts={parts}
        may={may}
        onChange={(inspection) => onChange({ ...body, inspection })}
      />
      {looked ? (
        <InHand
          key={looked.step.id}
          looked={looked}
          construction={construction}
          body={body}
          draft={draft}
          may={may}
          onDraft={setDraft}
          onAdd={add}
          onGood={() => say(withStep(body, looked.step.id, 'good'))}
          onNot={() => say(withStep(body, looked.step.id, 'not-examined'))}
          onItem={(item) => looked.kind === 'item' && say(withItem(body, looked.step.item, item))}
          onSection={() => say(allGood(body, list, looked.section))}
          onEverything={() => say(allGood(body, list))}
          bladeNames={parts.bladeNames}
          recipe={recipe}
          onNext={() => at !== undefined && go(nextOpen(list, body, at + 1))}
        />
      ) : (
        <div className="note good">
          <b>{body.inspected ? 'The inspection is finished.' : 'Everything was looked at.'}</b>
          {body.inspected
            ? 'As it was found is kept for good. Open it again on the right to look once more.'
            : 'Finish the inspection on the right.'}
        </div>
      )}
      <p className="soft" style={{ fontSize: 12.5 }} role="status">
        {open.length === 0
          ? 'Nothing is left to look at.'
          : body.inspected
            ? `Not looked at: ${open.map(nameOf).join(', ')}.`
            : `${open.length} of ${list.length} still to look at.`}
      </p>
      <Sections list={list} body={body} at={at} bladeNames={parts.bladeNames} onTake={go} />
    </>
  );
}

const SEEN_SIGN: Record<Exclude<Seen, undefined>, string> = {
  good: '✓',
  found: '!',
  'not-examined': '–',
  said: '✓',
};
const SEEN_WORDS: Record<Exclude<Seen, undefined>, string> = {
  good: 'good',
  found: 'something found',
  'not-examined': 'not examined',
  said: 'said',
};

/** What a step is called in its row; of several alike outside a blade's own section each has its number. */
function nameOf({ section, ...looked }: Looked): string {
  if (looked.kind === 'item') return sentence(looked.step.item);
  const [name = '', number] = looked.step.id.split(':');
  return number === undefined || section.endsWith(`:${number}`)
    ? sentence(name)
    : `${sentence(name)} ${number}`;
}

function Sections({
  list,
  body,
  at,
  bladeNames,
  onTake,
}: {
  list: readonly Looked[];
  body: Body;
  at: number | undefined;
  bladeNames: readonly string[];
  onTake: (at: number) => void;
}) {
  const sections = [...new Set(list.map((l) => l.section))];
  return sections.map((section) => {
    const members = list.flatMap((l, i) => (l.section === section ? [{ l, i }] : []));
    return (
      <div key={section} className="looksection">
        <div className="effort">{members[0] && sectionOf(members[0].l, bladeNames)}</div>
        <Roving
          className="lookrow"
          role="group"
          aria-label={members[0] && sectionOf(members[0].l, bladeNames)}
        >
          {members.map(({ l, i }) => {
            const seen = seenOf(l, body);
            const name = nameOf(l);
            return (
              <button
                key={l.step.id}
                type="button"
                className={`look ${seen ?? 'open'}`}
                aria-current={i === at ? 'step' : undefined}
                title={seen === undefined ? `${name}: not looked at yet` : `${name}: ${SEEN_WORDS[seen]}`}
                onClick={() => onTake(i)}
              >
                <i aria-hidden="true">{seen === undefined ? '·' : SEEN_SIGN[seen]}</i>
                {l.kind === 'item' && seen !== undefined
                  ? `${name}: ${sentence(body.completeness[l.step.item] ?? '').toLowerCase()}`
                  : name}
              </button>
            );
          })}
        </Roving>
      </div>
    );
  });
}
