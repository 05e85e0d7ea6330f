/** The rules a shop grades by: readable, copied and changed here, tried on the recorded pieces before they hold. */
import { TextInput } from '../parts/fields/TextInput.tsx';
import { pieceRoutes } from '@jutbank/contract/pieces';
import { conditionRoutes, type RuleTrial } from '@jutbank/contract/condition';
import { Button } from '@mui/material';
import { keepPreviousData, useMutation } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { RULE_IDS, type RuleDocument, type RuleId } from '@jutbank/core/condition';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useMay } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { useUnsaved } from '../base/unsaved.ts';
import { PageTitle } from '../parts/PageTitle.tsx';
import { dayText, sentence } from '../parts/words.ts';
import { IndexTable } from './IndexTable.tsx';
import { ScaleTable } from './ScaleTable.tsx';
import './condition.css';

export default function RulesPage() {
  const [query, setQuery] = useSearchParams();
  const asked = query.get('scale');
  const id = RULE_IDS.find((r) => r === asked) ?? 'collector';
  const summaries = useAnswer(conditionRoutes.ruleSummaries);
  if (summaries.isPending) return <Loading />;
  if (summaries.isError) return <Failed error={summaries.error} retry={() => void summaries.refetch()} />;
  const summary = summaries.data.items.find((s) => s.id === id);
  const inUse = summary?.versions.find((v) => v.inUse)?.version;
  const version = query.get('version') ?? inUse;
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>Rules of grading</PageTitle>
        <span className="soft">every grade says by which version it was made, and keeps it</span>
        <span className="grow" />
        <Link className="quiet" to="/gradings">
          Second gradings
        </Link>
      </div>
      <div className="rulesgrid">
        <nav aria-label="Documents">
          {summaries.data.items.map((s) => (
            <div key={s.id}>
              <div className="effort">{s.title}</div>
              {s.versions.map((v) => (
                <button
                  key={v.version}
                  type="button"
                  className="cand"
                  aria-pressed={s.id === id && v.version === version}
                  onClick={() => setQuery({ scale: s.id, version: v.version })}
                >
                  <b>version {v.version}</b> {v.inUse && <span className="soft">in use</span>}
                  <div className="soft" style={{ fontSize: 12 }}>
                    {v.note}
                    {v.madeAt !== null && `, ${v.madeBy ?? ''} ${dayText(v.madeAt)}`}
                  </div>
                </button>
              ))}
            </div>
          ))}
        </nav>
        {version !== undefined && (
          <Document
            key={`${id} ${version}`}
            id={id}
            version={version}
            inUse={version === inUse}
            onKept={(kept) => setQuery({ scale: id, version: kept })}
          />
        )}
      </div>
    </div>
  );
}

function Document({
  id,
  version,
  inUse,
  onKept,
}: {
  id: RuleId;
  version: string;
  inUse: boolean;
  onKept: (version: string) => void;
}) {
  const stored = useAnswer(
    conditionRoutes.rules,
    { params: { id }, query: { version } },
    { staleTime: Infinity },
  );
  const [draft, setDraft] = useState<RuleDocument>();
  useUnsaved(draft !== undefined);
  if (stored.isPending) return <Loading />;
  if (stored.isError) return <Failed error={stored.error} retry={() => void stored.refetch()} />;
  const document = draft ?? stored.data;
  return (
    <Editing
      document={document}
      changed={draft !== undefined}
      inUse={inUse}
      onChange={setDraft}
      onDrop={() => setDraft(undefined)}
      onKept={onKept}
    />
  );
}

function Editing({
  document,
  changed,
  inUse,
  onChange,
  onDrop,
  onKept,
}: {
  document: RuleDocument;
  changed: boolean;
  inUse: boolean;
  onChange: (document: RuleDocument) => void;
  onDrop: () => void;
  onKept: (version: string) => void;
}) {
  const answers = useKeptAnswers();
  const mayKeep = useMay('own');
  const [note, setNote] = useState('');
  const settled = useDeferredValue(document);
  const trial = useAnswer(
    conditionRoutes.tryRules,
    { body: { document: settled } },
    { placeholderData: keepPreviousData, enabled: changed || !inUse, retry: false, staleTime: 60_000 },
  );
  const fresh = () =>
    Promise.all([
      answers.invalidateBelow(conditionRoutes.ruleSummaries.path),
      answers.invalidateBelow(pieceRoutes.piece.path),
      answers.invalidate(conditionRoutes.grade, pieceRoutes.tray),
    ]);
  const keep = useMutation({
    mutationFn: () => send(conditionRoutes.keepRules, { body: { document, note } }),
    onSuccess: async (kept) => {
      await fresh();
      onDrop();
      onKept(kept.version);
    },
  });
  const use = useMutation({
    mutationFn: () =>
      send(conditionRoutes.useRules, { params: { id: document.id }, body: { version: document.version } }),
    onSuccess: fresh,
  });
  const refused = [trial.error, keep.error].find((e) => e instanceof ApiProblem);
  const wrong = (pointer: string) => refused?.at(`/document${pointer}`);
  return (
    <>
      <section aria-label="The rules">
        {document.format === 'jutbank.condition-index/1' ? (
          <IndexTable rules={document} wrong={wrong} may={mayKeep} onChange={onChange} />
        ) : (
          <ScaleTable rules={document} wrong={wrong} may={mayKeep} onChange={onChange} />
        )}
      </section>
      <aside aria-label="On the recorded pieces">
        <h2 className="sec">On the recorded pieces</h2>
        {!changed && inUse ? (
          <p className="soft">
            These are in use. Change a number: which pieces would get another grade appears here before
            anything holds.
          </p>
        ) : refused ? (
          <div className="note bad" role="alert">
            <b>These rules cannot be used</b>
            <ul>
              {refused.errors.slice(0, 8).map((e) => (
                <li key={e.pointer + e.message}>{e.message}</li>
              ))}
              {refused.errors.length === 0 && <li>{refused.message}</li>}
            </ul>
          </div>
        ) : (
          trial.data && <Trial trial={trial.data} />
        )}
        {changed && mayKeep && (
          <form
            style={{ marginTop: 12 }}
            onSubmit={(e) => {
              e.preventDefault();
              keep.mutate();
            }}
          >
            <TextInput
              label="What was changed, and why"
              value={note}
              problem={keep.error instanceof ApiProblem ? keep.error.at('/note') : undefined}
              onChange={setNote}
            />
            <div style={{ display: 'flex', gap: 8, marginTop: 8 }}>
              <Button type="submit" variant="contained" disabled={keep.isPending || refused !== undefined}>
                Grade by these from now on
              </Button>
              <Button onClick={onDrop}>Drop the changes</Button>
            </div>
            <p className="soft" style={{ marginTop: 6 }}>
              Kept as a version of its own. States that are already on record keep their grade.
            </p>
          </form>
        )}
        {!changed && !inUse && mayKeep && (
          <Button
            variant="contained"
            style={{ marginTop: 12 }}
            disabled={use.isPending}
            onClick={() => use.mutate()}
          >
            Grade by version {document.version} again
          </Button>
        )}
      </aside>
    </>
  );
}

const MOST_SHOWN = 40;

function Trial({ trial }: { trial: RuleTrial }) {
  const pieces = new Set(trial.changes.map((c) => c.piece.id)).size;
  if (pieces === 0)
    return (
      <p role="status">
        None of <span className="num">{trial.graded}</span> recorded pieces would change grade.
      </p>
    );
  return (
    <>
      <p role="status">
        <b>
          {pieces === 1 ? 'This piece' : `These ${pieces} pieces`} of {trial.graded} would change grade
        </b>
      </p>
      <ul className="trial">
        {trial.changes.slice(0, MOST_SHOWN).map((c) => (
          <li key={`${c.piece.id} ${c.scale}`}>
            <Link to={`/pieces/${c.piece.id}/condition`}>{c.piece.stockNumber}</Link> {c.piece.title}
            <div className="soft">
              {sentence(c.scale)}: {sentence(c.before).toLowerCase()} →{' '}
              <b>{sentence(c.after).toLowerCase()}</b>
              {c.indexBefore !== c.indexAfter && (
                <span className="num">
                  {' '}
                  {c.indexBefore.toFixed(1)} → {c.indexAfter.toFixed(1)}
                </span>
              )}
            </div>
          </li>
        ))}
      </ul>
      {trial.changes.length > MOST_SHOWN && (
        <p className="soft">and {trial.changes.length - MOST_SHOWN} more</p>
      )}
    </>
  );
}
