/** Documents of a piece: what each says, and whether that holds against what was seen. */
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { edtfInWords } from '@jutbank/core/dates';
import { CLAIM_KINDS, DOCUMENT_KINDS } from '@jutbank/core/provenance';
import { pieceRoutes, type PieceSheet } from '@jutbank/contract/pieces';
import {
  documentRoutes,
  type ClaimKind,
  type DocumentBody,
  type DocumentRecord,
} from '@jutbank/contract/provenance';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { send } from '../base/api.ts';
import { useMay } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { FileChooser } from '../parts/FileChooser.tsx';
import {
  chosen,
  DateInput,
  optionsOf,
  Rows,
  Select,
  Submit,
  TextInput,
  useContractForm,
} from '../parts/fields/index.ts';
import { Opening } from '../parts/Opening.tsx';
import { sentence } from '../parts/words.ts';
import { useVocabulary } from '../reference/vocabulary.ts';
import './provenance.css';

const VERDICT_WORDS = {
  agrees: 'agrees with the piece',
  contradicts: 'does not hold',
  'not-seen': 'not compared yet',
  open: 'to be judged',
} as const;
const CLAIM_WORDS: Readonly<Record<ClaimKind, string>> = {
  feature: 'a feature',
  number: 'a number',
  made: 'when it was made',
  owner: 'who had it',
  other: 'something else',
};

export function Documents({ sheet }: { sheet: PieceSheet }) {
  const mayWork = useMay('work');
  const documents = useAnswer(documentRoutes.documents, { params: { id: sheet.id } });
  if (documents.isPending) return <Loading />;
  if (documents.isError) return <Failed error={documents.error} retry={() => void documents.refetch()} />;
  const { items } = documents.data;
  return (
    <section>
      <h2 className="sec">
        Documents <small>{items.length === 0 ? '' : items.length}</small>
      </h2>
      {items.length === 0 && (
        <p className="soft" style={{ marginBottom: 8 }}>
          No paper of it is recorded. Letters, receipts, photographs, its package and price tag belong here:
          each claim is held against what was seen.
        </p>
      )}
      {items.map((document) => (
        <Document key={document.id} sheet={sheet} document={document} mayWork={mayWork} />
      ))}
      {mayWork && (
        <Opening words="Note a document">{(close) => <DocumentForm sheet={sheet} onDone={close} />}</Opening>
      )}
    </section>
  );
}

/** What hangs on documents is asked anew: the trail’s problems, the listing, the statements. */
function useTold(sheet: PieceSheet) {
  const answers = useKeptAnswers();
  return () => {
    void answers.invalidate(pieceRoutes.piece, pieceRoutes.tray);
    void answers.invalidateBelow(`${pieceRoutes.piece.path}/`, { id: sheet.id });
  };
}

function Document({
  sheet,
  document: d,
  mayWork,
}: {
  sheet: PieceSheet;
  document: DocumentRecord;
  mayWork: boolean;
}) {
  const told = useTold(sheet);
  const params = { id: sheet.id, document: d.id };
  const scan = useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.set('file', file);
      return send(documentRoutes.addFile, { params, body: form });
    },
    onSuccess: told,
  });
  const remove = useMutation({
    mutationFn: () => send(documentRoutes.unlinkDocument, { params }),
    onSuccess: told,
  });
  const about = [
    sentence(d.kind),
    d.dated === null ? '' : edtfInWords(d.dated),
    d.author,
    d.page && `page ${d.page}`,
    d.keptAt,
  ];
  return (
    <article className="paper-of-piece">
      <h3>{d.title}</h3>
      <p className="soft">{about.filter((part) => part !== '').join(' · ')}</p>
      <ul>
        {d.checked.map((c, i) => (
          <li key={i} className={`claim ${c.verdict}`}>
            <span>{sentence(c.says)}</span>
            <span title={c.because}>
              {VERDICT_WORDS[c.verdict]}
              <small>{c.because}</small>
            </span>
          </li>
        ))}
      </ul>
      {d.transcription !== '' && <blockquote>{d.transcription}</blockquote>}
      {d.elsewhere.length > 0 && (
        <p className="soft">
          Speaks of{' '}
          {d.elsewhere.map((p) => (
            <Link key={p.id} to={`/pieces/${p.id}/trail`} className="mono">
              {p.stockNumber}{' '}
            </Link>
          ))}
          too.
        </p>
      )}
      <div className="acts">
        {d.file && (
          <a href={`/api/v1/documents/${d.id}/file`} target="_blank" rel="noreferrer">
            {d.file.name}, {Math.max(1, Math.round(d.file.size / 1024))} kB{' '}
            <span className="mono soft" title={d.file.fingerprint}>
              {d.file.fingerprint.slice(0, 8)}
            </span>
          </a>
        )}
        {mayWork && (
          <>
            <FileChooser
              label={`Scan of ${d.title}`}
              accept="application/pdf,image/*,text/plain"
              look="quiet"
              disabled={scan.isPending}
              onChoose={(file) => scan.mutate(file)}
            >
              {d.file ? 'Another scan' : 'Add its scan'}
            </FileChooser>
            <Button
              variant="text"
              className="quiet"
              disabled={remove.isPending}
              onClick={() => remove.mutate()}
            >
              Not of this piece
            </Button>
          </>
        )}
      </div>
      {(scan.isError || remove.isError) && (
        <p className="problem" role="alert">
          {(scan.error ?? remove.error)?.message}
        </p>
      )}
      {mayWork && (
        <div className="acts">
          <Opening words="Change it">
            {(close) => <DocumentForm key={d.version} sheet={sheet} of={d} onDone={close} />}
          </Opening>
          <Opening words="It speaks of another piece too">
            {(close) => <LinkForm document={d} onDone={close} onLinked={told} />}
          </Opening>
        </div>
      )}
    </article>
  );
}

function LinkForm({
  document,
  onDone,
  onLinked,
}: {
  document: DocumentRecord;
  onDone: () => void;
  onLinked: () => void;
}) {
  const [number, setNumber] = useState('');
  const link = useMutation({
    mutationFn: async () => {
      const { items } = await send(pieceRoutes.listPieces, { query: { q: number.trim(), limit: 20 } });
      const piece = items.find((p) => p.stockNumber.toLowerCase() === number.trim().toLowerCase());
      if (!piece) throw new Error(`There is no piece ${number.trim()}.`);
      return send(documentRoutes.linkDocument, { params: { id: piece.id, document: document.id } });
    },
    onSuccess: () => {
      onLinked();
      onDone();
    },
  });
  return (
    <form
      className="fields"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        link.mutate();
      }}
    >
      <TextInput
        label="Stock number"
        mono
        value={number}
        problem={link.isError ? link.error.message : undefined}
        onChange={setNumber}
      />
      <div className="submit">
        <Button type="submit" variant="contained" disabled={link.isPending || number.trim() === ''}>
          Link it
        </Button>
      </div>
    </form>
  );
}

type Claim = DocumentBody['claims'][number];
const FRESH: Readonly<Record<ClaimKind, Claim>> = {
  feature: { kind: 'feature', feature: '', value: '' },
  number: { kind: 'number', number: '' },
  made: { kind: 'made', period: '' },
  owner: { kind: 'owner', holder: '', period: null },
  other: { kind: 'other', says: '' },
};
const NOTHING: DocumentBody = {
  kind: 'letter',
  title: '',
  dated: null,
  author: '',
  keptAt: '',
  page: '',
  transcription: '',
  claims: [],
};

function DocumentForm({ sheet, of, onDone }: { sheet: PieceSheet; of?: DocumentRecord; onDone: () => void }) {
  const told = useTold(sheet);
  const onSent = () => {
    told();
    onDone();
  };
  const { kind, title, dated, author, keptAt, page, transcription, claims } = of ?? NOTHING;
  const empty: DocumentBody = { kind, title, dated, author, keptAt, page, transcription, claims };
  const toBody = (values: DocumentBody) => values;
  const added = useContractForm(documentRoutes.addDocument, {
    params: { id: sheet.id },
    empty,
    toBody,
    onSent,
  });
  const changed = useContractForm(documentRoutes.putDocument, {
    params: { id: sheet.id, document: of?.id ?? '' },
    version: of?.version ?? 0,
    empty,
    toBody,
    onSent,
  });
  const form = of ? changed : added;
  return (
    <form className="fields" noValidate onSubmit={form.onSubmit}>
      <div className="fields across">
        <Select label="What it is" options={optionsOf(DOCUMENT_KINDS)} {...chosen(form.field('kind'))} />
        <TextInput label="Called" {...form.field('title')} />
      </div>
      <div className="fields across">
        <DateInput label="Dated" {...form.field('dated')} />
        <TextInput label="By" {...form.field('author')} />
        <TextInput label="Page" {...form.field('page')} />
        <TextInput label="Kept at" {...form.field('keptAt')} />
      </div>
      <Rows
        title="What it says of this piece"
        items={form.values.claims}
        fresh={() => FRESH.feature}
        add="another claim"
        onChange={(next) => form.set('claims', next)}
      >
        {(claim, _, i) => (
          <ClaimFields
            claim={claim}
            problem={(name) => form.field(`claims.${i}.${name}` as 'claims').problem}
            onChange={(next) =>
              form.set(
                'claims',
                form.values.claims.map((c, k) => (k === i ? next : c)),
              )
            }
          />
        )}
      </Rows>
      <TextInput label="Transcription" rows={4} {...form.field('transcription')} />
      <Submit form={form} words={of ? 'Keep' : 'Note it'} />
    </form>
  );
}

function ClaimFields({
  claim,
  problem,
  onChange,
}: {
  claim: Claim;
  problem: (name: string) => string | undefined;
  onChange: (claim: Claim) => void;
}) {
  const reference = useVocabulary().data;
  const features = reference?.features ?? [];
  const values = claim.kind === 'feature' ? features.find((f) => f.id === claim.feature)?.values : undefined;
  return (
    <div className="fields across">
      <Select
        label="It tells of"
        value={claim.kind}
        options={optionsOf(CLAIM_KINDS, (k) => CLAIM_WORDS[k])}
        onChange={(kind) => kind !== null && onChange(FRESH[kind])}
      />
      {claim.kind === 'feature' && (
        <>
          <Select
            label="Feature"
            value={claim.feature}
            problem={problem('feature')}
            options={features.map((f) => ({ value: f.id, label: f.label }))}
            onChange={(feature) => onChange({ ...claim, feature: feature ?? '', value: '' })}
          />
          {values ? (
            <Select
              label="Says"
              value={String(claim.value)}
              problem={problem('value')}
              options={values.map((v) => ({ value: v.id, label: v.label }))}
              onChange={(value) => onChange({ ...claim, value: value ?? '' })}
            />
          ) : (
            <TextInput
              label="Says"
              value={String(claim.value)}
              problem={problem('value')}
              onChange={(value) => onChange({ ...claim, value })}
            />
          )}
        </>
      )}
      {claim.kind === 'number' && (
        <TextInput
          label="Number"
          mono
          value={claim.number}
          problem={problem('number')}
          onChange={(number) => onChange({ ...claim, number })}
        />
      )}
      {claim.kind === 'made' && (
        <DateInput
          label="Made"
          value={claim.period}
          problem={problem('period')}
          onChange={(period) => onChange({ ...claim, period: period ?? '' })}
        />
      )}
      {claim.kind === 'owner' && (
        <>
          <TextInput
            label="Who"
            value={claim.holder}
            problem={problem('holder')}
            onChange={(holder) => onChange({ ...claim, holder })}
          />
          <DateInput
            label="When"
            value={claim.period}
            problem={problem('period')}
            onChange={(period) => onChange({ ...claim, period })}
          />
        </>
      )}
      {claim.kind === 'other' && (
        <TextInput
          label="Says"
          value={claim.says}
          problem={problem('says')}
          onChange={(says) => onChange({ ...claim, says })}
        />
      )}
    </div>
  );
}
