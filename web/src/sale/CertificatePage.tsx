/** The public check page: what a certificate's code leads to, whether it stands, and its signature, checked here. */
import { lookedAt, verifyCredential } from '@jutbank/core/certificate';
import { saleRoutes } from '@jutbank/contract/sale';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useParams } from 'react-router';
import { useAnswer } from '../base/answers.ts';
import { Failed, Loading } from '../base/states.tsx';
import { FileChooser } from '../parts/FileChooser.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { dayText } from '../parts/words.ts';
import './sale.css';

export default function CertificatePage() {
  const { code = '' } = useParams();
  const certificate = useAnswer(saleRoutes.check, { params: { code } });
  if (certificate.isPending) return <Loading />;
  if (certificate.isError) return <Failed error={certificate.error} />;
  const c = certificate.data;
  return (
    <main className="page" style={{ maxWidth: 760, paddingTop: 40 }}>
      <p className="soft">{c.shop}</p>
      <PageTitle>Certificate of examination</PageTitle>
      <p className="mono soft" style={{ margin: '4px 0 18px' }}>
        {c.stockNumber} · {c.code} · {dayText(c.issuedAt)}
      </p>
      {c.withdrawn && (
        <div className="note bad" style={{ marginBottom: 10 }}>
          <b>This certificate was withdrawn on {dayText(c.withdrawn.on)}.</b>
          {c.withdrawn.because}
        </div>
      )}
      <div className={c.intact ? 'note good' : 'note bad'}>
        <b>
          {c.intact
            ? 'What stands here is as it was issued.'
            : 'The record behind this certificate does not match its fingerprint.'}
        </b>
        <span className="mono" style={{ overflowWrap: 'anywhere', fontSize: 11.5 }}>
          {c.fingerprint}
        </span>
      </div>
      {c.signed && <Signature code={code} issuer={c.issuer} />}
      {c.pictures && c.pictures.length > 0 && (
        <div className="certificate-pictures">
          {c.pictures.map((p) => (
            <img
              key={p.hash}
              src={`/api/v1/certificates/${code}/pictures/${p.hash}`}
              alt={p.caption || 'Picture of the piece'}
              loading="lazy"
            />
          ))}
        </div>
      )}
      <dl style={{ display: 'grid', gap: 12, marginTop: 18 }}>
        <Entry name="What it is">
          <b>{c.claim}</b>
          {c.notProvedBecause.map((r) => (
            <p key={r} className="soft">
              Not proved, because {r}.
            </p>
          ))}
        </Entry>
        <Entry name="Made">{c.made ?? 'not known'}</Entry>
        <Lines name="Marks, codes and numbers as they were read" lines={c.marks} />
        <Lines name="Seen of it" lines={c.features} />
        <Lines name="Measured" lines={c.measures} />
        <Entry name="Condition">{c.grade ?? 'not graded'}</Entry>
        <Entry name="Found on inspection">
          <p>{lookedAt(c)}</p>
          <List lines={c.findings} />
        </Entry>
        <Lines name="What was not examined" lines={c.notExamined} />
        <Entry name="Provenance">{c.provenance ?? 'Earlier owners are not known.'}</Entry>
        {c.examiner && (
          <Entry name="Examined by">
            {c.examiner}, for {c.shop}
          </Entry>
        )}
      </dl>
    </main>
  );
}

/** The signed file, checked in the browser; and any file that somebody was handed. */
function Signature({ code, issuer }: { code: string; issuer: string | null }) {
  const address = `/api/v1/certificates/${code}/certificate.json`;
  const signed = useQuery({
    queryKey: ['signed certificate', code],
    queryFn: async () => verdictOn(await (await fetch(address)).text()),
    staleTime: Infinity,
  });
  const [handed, setHanded] = useState<ReturnType<typeof verifyCredential>>();
  const verdict = handed ?? signed.data;
  if (!verdict) return null;
  const known = verdict.intact && verdict.issuer === issuer;
  return (
    <div className={known ? 'note good' : 'note bad'} style={{ marginTop: 10 }}>
      <b>
        {verdict.intact
          ? known
            ? `${handed ? 'The file you hold' : 'It'} is signed by the shop, and nothing in it was changed.`
            : 'It is whole, but signed with another key than this shop’s.'
          : verdict.why}
      </b>
      <span className="mono" style={{ overflowWrap: 'anywhere', fontSize: 11.5 }}>
        {issuer}
      </span>
      <p style={{ display: 'flex', gap: 14, alignItems: 'center', flexWrap: 'wrap', marginTop: 6 }}>
        <a href={address}>Keep the signed file</a>
        <FileChooser
          label="A certificate as a file"
          accept=".json,application/json"
          onChoose={(file) => {
            void file.text().then((text) => setHanded(verdictOn(text)));
          }}
          look="quiet"
        >
          Check a file you were given
        </FileChooser>
      </p>
    </div>
  );
}

function verdictOn(text: string): ReturnType<typeof verifyCredential> {
  try {
    return verifyCredential(JSON.parse(text));
  } catch {
    return { intact: false, why: 'This file is no certificate.' };
  }
}

function Lines({ name, lines }: { name: string; lines: readonly string[] | undefined }) {
  return lines && lines.length > 0 ? (
    <Entry name={name}>
      <List lines={lines} />
    </Entry>
  ) : null;
}

const List = ({ lines }: { lines: readonly string[] }) => (
  <ul>
    {lines.map((line) => (
      <li key={line}>– {line}</li>
    ))}
  </ul>
);

function Entry({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <div>
      <dt className="soft" style={{ fontSize: 12 }}>
        {name}
      </dt>
      <dd>{children}</dd>
    </div>
  );
}
