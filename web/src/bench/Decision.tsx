/** The appraiser's own decision: theirs to make, kept with what it rested on. */
import { benchRoutes } from '@jutbank/contract/bench';
import { Button, Checkbox, FormControlLabel, MenuItem, TextField } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { TIERS, type IdentifyAnswer, type Tier } from '@jutbank/core/bench';
import { edtfInWords, parseSpokenDate, periodInWords } from '@jutbank/core/dates';
import type { StoredAttribution, PieceSheet } from '@jutbank/contract/pieces';
import { ApiProblem, send } from '../base/api.ts';
import { useMay } from '../base/session.ts';
import type { VariantNames } from '../reference/vocabulary.ts';
import { inHundred, TIER_LOOK } from '../parts/TierBadge.tsx';
import { inLine, useTakeSheet } from '../pieces/usePiece.ts';
import { dayText, inWords } from '../parts/words.ts';

export function Decision({
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
  const [none, setNone] = useState(false);
  const [evidence, setEvidence] = useState('');
  const [made, setMade] = useState('');
  const [madeReason, setMadeReason] = useState('');
  const date = made.trim() === '' ? undefined : parseSpokenDate(made);
  const candidate = answer.candidates.find((c) => c.variant === chosen) ?? answer.candidates[0];
  const decide = useMutation({
    mutationFn: () =>
      inLine(sheet.id, () =>
        send(benchRoutes.putAttribution, {
          params: { id: sheet.id },
          body: {
            attribution: {
              variant: none ? null : (candidate?.variant ?? null),
              pattern: none ? null : (candidate?.pattern ?? null),
              tier: tier ?? answer.attribution.tier,
              reason,
              evidence,
              made: date?.ok ? date.value.edtf : null,
              madeReason: date?.ok ? madeReason : '',
            },
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
          {sheet.attribution.evidence && (
            <p className="soft">Overrules the evidence: {sheet.attribution.evidence}</p>
          )}
          <AsItWas decided={sheet.attribution} names={names} />
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
          <b>
            {none
              ? 'Not in the reference'
              : (names.get(candidate.variant)?.label ?? inWords(candidate.variant))}
          </b>
          <FormControlLabel
            control={<Checkbox checked={none} onChange={(e) => setNone(e.target.checked)} />}
            label="None of the reference’s variants is right"
          />
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
          {(answer.attribution.tier === 'rejected' || evidence !== '') && (
            <TextField
              label="What overrules the evidence"
              value={evidence}
              onChange={(e) => setEvidence(e.target.value)}
              error={!!problem?.at('/attribution/evidence')}
              helperText={
                problem?.at('/attribution/evidence') ??
                'A document, an examination, whose: it stands in the listing and on the certificate.'
              }
            />
          )}
          <TextField
            label="Made, by your own judgement"
            value={made}
            onChange={(e) => setMade(e.target.value)}
            error={date !== undefined && !date.ok}
            helperText={
              date === undefined
                ? 'Left empty: where its form and what was seen meet.'
                : date.ok
                  ? periodInWords(date.value)
                  : date.error.message
            }
          />
          {date?.ok && (
            <TextField
              label="Why of that date"
              value={madeReason}
              onChange={(e) => setMadeReason(e.target.value)}
              error={!!problem?.at('/attribution/madeReason')}
              helperText={problem?.at('/attribution/madeReason') ?? 'Every paper says this date with it.'}
            />
          )}
          {problem && problem.errors.length === 0 && <p className="problem">{problem.message}</p>}
          <div style={{ display: 'flex', gap: 8 }}>
            <Button
              type="submit"
              variant="contained"
              disabled={decide.isPending || (date !== undefined && !date.ok)}
            >
              Keep this
            </Button>
            <Button onClick={() => setOpen(false)}>Not yet</Button>
          </div>
        </form>
      )}
    </div>
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
