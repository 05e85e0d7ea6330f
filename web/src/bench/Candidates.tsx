/** What it may be, each with its weight; what cannot be proved; and the appraiser's own decision. */
import { Button, MenuItem, TextField } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { TIERS, type IdentifyAnswer, type Tier } from '@jutbank/core/bench';
import { edtfInWords } from '@jutbank/core/dates';
import type { PieceSheet } from '@jutbank/contract/intake';
import type { Vocabulary } from '@jutbank/contract/reference';
import { ApiProblem, call } from '../app/api.ts';
import { useMay } from '../app/session.ts';
import { inHundred, TemperMarks, TIER_LOOK, weightLook } from '../parts/Temper.tsx';
import { inLine, useTakeSheet } from '../parts/usePiece.ts';
import { inWords } from '../parts/words.ts';
import type { VariantNames } from '../parts/names.ts';

/** Candidates shown at once; thinner ones add nothing a person could act on. */
const SHOWN = 6;
const THINNEST = 0.004;

interface Props {
  readonly sheet: PieceSheet;
  readonly answer: IdentifyAnswer;
  readonly vocabulary: Vocabulary;
  readonly chosen: string | undefined;
  readonly onChoose: (variant: string) => void;
  readonly saved: boolean;
  readonly names: VariantNames;
}

export function Candidates({ sheet, answer, vocabulary, chosen, onChoose, saved, names }: Props) {
  const shown = answer.candidates.filter((c, i) => i === 0 || c.probability > THINNEST).slice(0, SHOWN);
  const unlisted = weightLook(answer.unlisted);
  return (
    <>
      <h2 className="sec">
        Candidates <small>{vocabulary.patterns.length} patterns known</small>
      </h2>
      {shown.map((c, i) => {
        const look = weightLook(c.probability);
        const named = names.get(c.variant);
        return (
          <button
            key={c.variant}
            type="button"
            className="cand"
            aria-pressed={(chosen ?? shown[0]?.variant) === c.variant}
            onClick={() => onChoose(c.variant)}
          >
            <b>{named?.label ?? inWords(c.variant)}</b>
            <div className="soft" style={{ fontSize: 12 }}>
              {[
                named?.window === undefined ? undefined : edtfInWords(named.window),
                named?.made,
                c.exchanged.length > 0 ? `${c.exchanged.join(', ')} exchanged` : undefined,
              ]
                .filter(Boolean)
                .join(' · ')}
            </div>
            <div className="bar">
              <span style={{ width: `${Math.max(0.5, c.probability * 100)}%`, background: look.colour }} />
            </div>
            <div className="cw">
              <TemperMarks filled={look.filled} colour={look.colour} />
              <b>{i === 0 && look.word === 'unlikely' ? 'leads narrowly' : look.word}</b>
              <span className="num">{inHundred(c.probability)}</span>
            </div>
          </button>
        );
      })}
      <div className="cand" style={{ cursor: 'default' }}>
        <b>Something not in the reference</b>
        <div className="bar">
          <span
            style={{ width: `${Math.max(0.5, answer.unlisted * 100)}%`, background: 'var(--greyblue)' }}
          />
        </div>
        <div className="cw">
          <TemperMarks filled={unlisted.filled} colour="var(--greyblue)" />
          <b>{unlisted.word === 'leads' ? 'more likely than not' : unlisted.word}</b>
          <span className="num">{inHundred(answer.unlisted)}</span>
        </div>
      </div>
      <div
        className="note"
        style={{ borderLeftColor: TIER_LOOK[answer.attribution.tier].colour, marginTop: 8 }}
      >
        <b>{TIER_LOOK[answer.attribution.tier].word}</b>
        {answer.attribution.reasons.join(' ')}
        {answer.attribution.cannotBeProvedBecause.length > 0 && (
          <p className="soft">
            Cannot be proved, because {answer.attribution.cannotBeProvedBecause.join('; ')}.
          </p>
        )}
      </div>
      {answer.alerts.map((alert) => (
        <div key={alert.detail} className="note bad" style={{ marginTop: 8 }}>
          <b>{alert.kind === 'serial-beyond-run' ? 'Number beyond the run' : 'Known tell'}</b>
          {alert.detail}
        </div>
      ))}
      <Decision sheet={sheet} answer={answer} chosen={chosen} names={names} saved={saved} />
    </>
  );
}

function Decision({
  sheet,
  answer,
  chosen,
  names,
  saved,
}: {
  sheet: PieceSheet;
  answer: IdentifyAnswer;
  chosen: string | undefined;
  names: VariantNames;
  saved: boolean;
}) {
  const may = useMay('appraise') && sheet.sale === null;
  const takeSheet = useTakeSheet();
  const [open, setOpen] = useState(false);
  const [tier, setTier] = useState<Tier>();
  const [reason, setReason] = useState('');
  const candidate = answer.candidates.find((c) => c.variant === chosen) ?? answer.candidates[0];
  const decide = useMutation({
    mutationFn: () =>
      inLine(sheet.id, () =>
        call<PieceSheet>('PUT', `/pieces/${sheet.id}/attribution`, {
          body: {
            attribution: candidate
              ? {
                  variant: candidate.variant,
                  pattern: candidate.pattern,
                  tier: tier ?? answer.attribution.tier,
                  reason,
                }
              : null,
          },
          version: sheet.version,
        }),
      ),
    onSuccess: (fresh) => {
      takeSheet(fresh);
      setOpen(false);
    },
  });
  const problem = decide.error instanceof ApiProblem ? decide.error : undefined;
  return (
    <div style={{ marginTop: 12, display: 'grid', gap: 10 }}>
      {sheet.attribution && (
        <div className="note good">
          <b>Decided: {TIER_LOOK[sheet.attribution.tier].word.toLowerCase()}</b>
          {names.get(sheet.attribution.variant ?? '')?.label ??
            inWords(sheet.attribution.variant ?? 'not in the reference')}
          , by {sheet.attribution.decidedBy}
          {sheet.attribution.reason !== '' && <p className="soft">{sheet.attribution.reason}</p>}
        </div>
      )}
      {may && !open && (
        <Button variant="contained" disabled={!candidate || !saved} onClick={() => setOpen(true)}>
          {sheet.attribution ? 'Decide again' : 'Decide'}
        </Button>
      )}
      {may && open && candidate && (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            decide.mutate();
          }}
          style={{
            display: 'grid',
            gap: 10,
            border: '2px solid var(--ink)',
            padding: 12,
            background: 'var(--sheet)',
          }}
        >
          <b>{names.get(candidate.variant)?.label ?? inWords(candidate.variant)}</b>
          <TextField
            select
            label="How sure"
            value={tier ?? answer.attribution.tier}
            onChange={(e) => setTier(e.target.value as Tier)}
          >
            {TIERS.map((t) => (
              <MenuItem key={t} value={t}>
                {TIER_LOOK[t].word}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            label="Reason"
            value={reason}
            multiline
            minRows={2}
            onChange={(e) => setReason(e.target.value)}
            error={!!problem?.at('/attribution/reason')}
            helperText={problem?.at('/attribution/reason') ?? 'Wanted where you differ from the evidence.'}
          />
          {problem && problem.errors.length === 0 && <p className="problem">{problem.message}</p>}
          <div style={{ display: 'flex', gap: 8 }}>
            <Button type="submit" variant="contained" disabled={decide.isPending}>
              Keep this
            </Button>
            <Button onClick={() => setOpen(false)}>Not yet</Button>
          </div>
        </form>
      )}
    </div>
  );
}
