/** A pack from somebody else: looked through before it goes in. */
import { referenceRoutes, type PackReview } from '@jutbank/contract/reference';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { edtfInWords } from '@jutbank/core/dates';
import { useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { FileChooser } from '../parts/FileChooser.tsx';
import { SECTION_WORDS } from './writing/draft.ts';
import './reference.css';

const SHOWN = 8;
const sum = (counts: Record<string, number>) => Object.values(counts).reduce((a, b) => a + b, 0);

export function ImportPack() {
  const answers = useKeptAnswers();
  const [pack, setPack] = useState<unknown>();
  const review = useMutation({
    mutationFn: async (file: File) => {
      let read: unknown;
      try {
        read = JSON.parse(await file.text());
      } catch {
        throw new ApiProblem(400, 'This file is not JSON', 'A reference pack is one JSON document.', []);
      }
      const answer = await send(referenceRoutes.reviewPack, { body: read });
      setPack(read);
      return answer;
    },
  });
  const sending = useMutation({
    mutationFn: () => send(referenceRoutes.importPack, { body: pack }),
    onSuccess: () => {
      setPack(undefined);
      return answers.invalidateAll();
    },
  });
  const failed = review.error ?? sending.error;
  const problem = failed instanceof ApiProblem ? failed : undefined;
  const busy = review.isPending || sending.isPending;
  return (
    <div className="importpack">
      <FileChooser
        label="Choose a reference pack"
        accept=".json,application/json"
        look="main"
        disabled={busy}
        onChoose={(file) => {
          sending.reset();
          review.mutate(file);
        }}
      >
        {review.isPending ? 'Reading…' : sending.isPending ? 'Importing…' : 'Import a pack'}
      </FileChooser>
      {pack !== undefined && review.data && (
        <Review
          review={review.data}
          busy={busy}
          accept={() => sending.mutate()}
          refuse={() => setPack(undefined)}
        />
      )}
      {sending.isSuccess && pack === undefined && (
        <p role="status" className="soft">
          {sum(sending.data.created)} new, {sum(sending.data.updated)} changed, {sum(sending.data.unchanged)}{' '}
          as before
        </p>
      )}
      {failed && (
        <div role="alert">
          <p className="problem">{failed.message} Nothing was imported.</p>
          {problem?.errors.slice(0, SHOWN).map((e) => (
            <p key={e.pointer + e.message} className="problem">
              <span className="mono">{e.pointer}</span> {e.message}
            </p>
          ))}
        </div>
      )}
    </div>
  );
}

/** A field in words: plain lists as lists, what is deeper as it stands in the pack. */
const inShort = (value: unknown): string => {
  const plain = Array.isArray(value) && value.every((item) => typeof item !== 'object');
  const text =
    value == null
      ? 'nothing'
      : plain
        ? value.join(', ')
        : typeof value === 'object'
          ? JSON.stringify(value)
          : String(value as string | number | boolean);
  return text.length > 60 ? `${text.slice(0, 57)}…` : text;
};

function Review({
  review,
  busy,
  accept,
  refuse,
}: {
  review: PackReview;
  busy: boolean;
  accept: () => void;
  refuse: () => void;
}) {
  const { counts, created, changed, contradicts, warnings } = review;
  return (
    <section aria-label="What this pack would do" className="note" style={{ marginTop: 10 }}>
      <b>
        {sum(counts.created)} new, {sum(counts.updated)} changed, {sum(counts.unchanged)} as before
      </b>
      <ul className="reviewed">
        {created.slice(0, SHOWN).map((c) => (
          <li key={`${c.section} ${c.id}`}>
            new {SECTION_WORDS[c.section]}: {c.name}
          </li>
        ))}
        {created.length > SHOWN && <li className="soft">and {created.length - SHOWN} more</li>}
        {changed.slice(0, SHOWN).map((c) => (
          <li key={`${c.section} ${c.id}`}>
            changes {SECTION_WORDS[c.section]} {c.name}:{' '}
            {c.fields.map((f) => `${f.field} ${inShort(f.before)} → ${inShort(f.after)}`).join('; ')}
          </li>
        ))}
        {contradicts.slice(0, SHOWN).map((c) => (
          <li key={c.window} className="warn">
            contradicts {c.shopSource ?? 'what is known'}: {c.feature} {c.value} {edtfInWords(c.says)}, there{' '}
            {edtfInWords(c.shopSays)}. Both will stay.
          </li>
        ))}
        {warnings.slice(0, SHOWN).map((w) => (
          <li key={w} className="soft">
            {w}
          </li>
        ))}
      </ul>
      <Button variant="contained" disabled={busy} onClick={accept}>
        Take it in
      </Button>{' '}
      <Button disabled={busy} onClick={refuse}>
        Leave it
      </Button>
    </section>
  );
}
