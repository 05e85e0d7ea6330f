/** The public check page: what a certificate's code leads to, and only what was meant to be public. */
import { saleRoutes } from '@jutbank/contract/sale';
import { useParams } from 'react-router';
import { useAnswer } from '../base/answers.ts';
import { Failed, Loading } from '../base/states.tsx';
import { dayText } from '../parts/words.ts';

export default function CertificatePage() {
  const { code = '' } = useParams();
  const certificate = useAnswer(saleRoutes.check, { params: { code } });
  if (certificate.isPending) return <Loading />;
  if (certificate.isError) return <Failed error={certificate.error} />;
  const c = certificate.data;
  return (
    <main className="page" style={{ maxWidth: 680, paddingTop: 40 }}>
      <p className="soft">{c.shop}</p>
      <h1>Certificate of examination</h1>
      <p className="mono soft" style={{ margin: '4px 0 18px' }}>
        {c.stockNumber} · {c.code} · {dayText(c.issuedAt)}
      </p>
      <div className={c.intact ? 'note good' : 'note bad'}>
        <b>
          {c.intact
            ? 'This certificate is as it was issued.'
            : 'The record behind this certificate does not match its fingerprint.'}
        </b>
        <span className="mono" style={{ overflowWrap: 'anywhere', fontSize: 11.5 }}>
          {c.fingerprint}
        </span>
      </div>
      <dl style={{ display: 'grid', gap: 12, marginTop: 18 }}>
        <Row name="What it is">
          <b>{c.claim}</b>
          {c.notProvedBecause.map((r) => (
            <p key={r} className="soft">
              Not proved, because {r}.
            </p>
          ))}
        </Row>
        <Row name="Made">{c.made ?? 'not known'}</Row>
        <Row name="Condition">{c.grade ?? 'not graded'}</Row>
        <Row name="Found on inspection">
          {c.findings.length === 0 ? (
            c.inspected ? (
              (c.whole ?? true) ? (
                'No fault was found.'
              ) : (
                'Not everything was examined.'
              )
            ) : (
              'It was not inspected.'
            )
          ) : (
            <ul>
              {!c.inspected && <li>It was not inspected.</li>}
              {c.findings.map((f) => (
                <li key={f}>– {f}</li>
              ))}
            </ul>
          )}
        </Row>
        <Row name="Provenance">{c.provenance ?? 'Earlier owners are not known.'}</Row>
      </dl>
    </main>
  );
}

function Row({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <div>
      <dt className="soft" style={{ fontSize: 12 }}>
        {name}
      </dt>
      <dd>{children}</dd>
    </div>
  );
}
