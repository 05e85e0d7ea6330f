/** The appraiser's own decision: theirs to make, kept with what it rested on. */
import { benchRoutes } from '@jutbank/contract/bench';
import { Button } from '@mui/material';
import { useMemo, useRef, useState } from 'react';
import { TIERS, type IdentifyAnswer, type Tier } from '@jutbank/core/bench';
import { edtfInWords } from '@jutbank/core/dates';
import type { StoredAttribution, PieceSheet } from '@jutbank/contract/pieces';
import { useMay } from '../base/session.ts';
import { useShortcuts } from '../base/shortcuts.ts';
import { ActButton } from '../parts/ActButton.tsx';
import { NoLongerNew } from '../reference/NoLongerNew.tsx';
import { WantedBy } from '../series/WantedBy.tsx';
import type { VariantNames } from '../reference/vocabulary.ts';
import { chosen, optionsOf, Select, Tick } from '../parts/fields/choices.tsx';
import { DateInput } from '../parts/fields/figures.tsx';
import { Submit } from '../parts/fields/Submit.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { useContractForm } from '../parts/fields/useContractForm.ts';
import { inHundred, TIER_LOOK } from '../parts/TierBadge.tsx';
import { isHere, useTakeSheet } from '../pieces/usePiece.ts';
import { dayText, inWords } from '../parts/words.ts';

export function Decision({
  sheet,
  answer,
  chosen: chosenVariant,
  names,
  saved,
}: {
  sheet: PieceSheet;
  answer: IdentifyAnswer;
  chosen: string | undefined;
  names: VariantNames;
  saved: boolean;
}) {
  const may = useMay('appraise') && isHere(sheet);
  const [open, setOpen] = useState(false);
  const candidate = answer.candidates.find((c) => c.variant === chosenVariant) ?? answer.candidates[0];
  return (
    <div className={open ? 'deciding open' : 'deciding'}>
      {sheet.attribution && (
        <div className="note good">
          <b>Decided: {TIER_LOOK[sheet.attribution.tier].word.toLowerCase()}</b>
          {names.get(sheet.attribution.variant ?? '')?.label ??
            inWords(sheet.attribution.variant ?? 'not in the reference')}
          , by {sheet.attribution.decidedBy}
          {sheet.attribution.reason !== '' && <p className="soft">{sheet.attribution.reason}</p>}
          {sheet.attribution.evidence && (
            <p className="soft">Overrules the evidence: {sheet.attribution.evidence}</p>
          )}
          <AsItWas decided={sheet.attribution} names={names} />
        </div>
      )}
      <NoLongerNew variant={sheet.attribution?.variant ?? candidate?.variant} />
      {sheet.attribution && <WantedBy piece={sheet.id} />}
      {may && !open && (
        <ActButton
          does={sheet.attribution ? 'Decide again' : 'Decide'}
          disabled={!candidate || !saved}
          onAct={() => setOpen(true)}
        />
      )}
      {may && open && candidate && (
        <DecisionForm
          sheet={sheet}
          answer={answer}
          candidate={candidate}
          names={names}
          onShut={() => setOpen(false)}
        />
      )}
    </div>
  );
}

/** What the form holds; a date of one's own goes with its reason, or not at all. */
interface Deciding {
  none: boolean;
  attribution: {
    tier: Tier;
    reason: string;
    evidence: string;
    made: string | null;
    madeReason: string;
  };
}

function DecisionForm({
  sheet,
  answer,
  candidate,
  names,
  onShut,
}: {
  sheet: PieceSheet;
  answer: IdentifyAnswer;
  candidate: IdentifyAnswer['candidates'][number];
  names: VariantNames;
  onShut: () => void;
}) {
  const takeSheet = useTakeSheet();
  const empty: Deciding = {
    none: false,
    attribution: { tier: answer.attribution.tier, reason: '', evidence: '', made: null, madeReason: '' },
  };
  const form = useContractForm(benchRoutes.putAttribution, {
    params: { id: sheet.id },
    version: sheet.version,
    empty,
    toBody: ({ none, attribution }: Deciding) => ({
      attribution: {
        ...attribution,
        variant: none ? null : candidate.variant,
        pattern: none ? null : candidate.pattern,
        madeReason: attribution.made === null ? '' : attribution.madeReason,
      },
    }),
    onSent: (fresh) => {
      takeSheet(fresh);
      onShut();
    },
  });
  const { none, attribution } = form.values;
  const box = useRef<HTMLFormElement>(null);
  const keep = useMemo(
    () => [{ key: 'mod+Enter', does: 'Keep this', run: () => box.current?.requestSubmit() }],
    [],
  );
  useShortcuts('The decision', keep);
  return (
    <form ref={box} className="askbox fields" style={{ margin: 0 }} noValidate onSubmit={form.onSubmit}>
      <b>
        {none ? 'Not in the reference' : (names.get(candidate.variant)?.label ?? inWords(candidate.variant))}
      </b>
      <Tick label="None of the reference’s variants is right" {...form.field('none')} />
      <Select
        label="How sure"
        options={optionsOf(TIERS, (t) => TIER_LOOK[t].word)}
        {...chosen(form.field('attribution.tier'))}
      />
      <TextInput
        label="Reason"
        why="Wanted where you differ from the evidence."
        rows={2}
        {...form.field('attribution.reason')}
      />
      {(answer.attribution.tier === 'rejected' || attribution.evidence !== '') && (
        <TextInput
          label="What overrules the evidence"
          why="A document, an examination, whose: it stands in the listing and on the certificate."
          {...form.field('attribution.evidence')}
        />
      )}
      <DateInput
        label="Made, by your own judgement"
        why="Left empty: where its form and what was seen meet."
        {...form.field('attribution.made')}
      />
      {attribution.made !== null && (
        <TextInput
          label="Why of that date"
          why="Every paper says this date with it."
          {...form.field('attribution.madeReason')}
        />
      )}
      <Submit form={form} words="Keep this">
        <Button onClick={onShut}>Not yet</Button>
      </Submit>
    </form>
  );
}

/** The decision as it was made: what was seen and what the engine said then, whatever it would say today. */
function AsItWas({ decided, names }: { decided: StoredAttribution; names: VariantNames }) {
  const { engineAnswer: then } = decided;
  const leading = then.candidates.slice(0, 4);
  return (
    <details>
      <summary>as it stood on {dayText(decided.decidedAt)}</summary>
      <table className="grid">
        <tbody>
          {leading.map((c) => (
            <tr key={c.variant}>
              <td>{names.get(c.variant)?.label ?? inWords(c.variant)}</td>
              <td className="r num">{inHundred(c.probability)}</td>
            </tr>
          ))}
          <tr>
            <td>Something not in the reference</td>
            <td className="r num">{inHundred(then.unlisted)}</td>
          </tr>
        </tbody>
      </table>
      <p className="soft">
        {TIER_LOOK[then.attribution.tier].word}; made {edtfInWords(then.core)}
        {decided.observations && `; from ${decided.observations.length} observations`}. Engine{' '}
        {decided.engineVersion}, reference revision {decided.referenceRevision}.
      </p>
    </details>
  );
}
