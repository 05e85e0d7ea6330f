/** Any day can be asked for: what was known of a piece then, and what came since. */
import { useState } from 'react';
import { provenanceRoutes, type AsKnown as Known } from '@jutbank/contract/provenance';
import { useAnswer } from '../base/answers.ts';
import { DateInput } from '../parts/fields/index.ts';
import { dayText, moneyText, sentence } from '../parts/words.ts';

export function AsKnown({ id }: { id: string }) {
  const [day, setDay] = useState<string>();
  const on = day !== undefined && /^\d{4}-\d{2}-\d{2}$/.test(day) ? day : undefined;
  const known = useAnswer(
    provenanceRoutes.asKnown,
    { params: { id }, query: { on: on ?? '' } },
    { enabled: on !== undefined, retry: false },
  );
  return (
    <section style={{ marginTop: 20 }}>
      <h2 className="sec">As it was known then</h2>
      <div style={{ maxWidth: 220, marginBottom: 10 }}>
        <DateInput
          label="On which day"
          value={null}
          problem={
            day !== undefined && on === undefined
              ? 'One day, such as 12 Mar 2026'
              : known.isError
                ? known.error.message
                : undefined
          }
          onChange={(edtf) => setDay(edtf ?? undefined)}
        />
      </div>
      {on !== undefined && known.data && <Then known={known.data} />}
    </section>
  );
}

function Then({ known: k }: { known: Known }) {
  const lines = [
    ['Decided', k.decided ? decidedInWords(k.decided) : 'nothing yet'],
    [
      'By what is known today',
      k.seen.length === 0 ? 'nothing was seen yet' : decidedInWords({ ...k.byToday, reason: '' }),
    ],
    ['Seen', k.seen.join('; ') || 'nothing yet'],
    [
      'Found',
      k.inspected
        ? k.found.join('; ') || 'no fault'
        : `${k.found.join('; ') || 'nothing yet'}; inspection not finished`,
    ],
    ['Owners', k.provenance ?? 'nothing yet'],
    ['Asked', k.ask ? moneyText(k.ask) : 'nothing yet'],
    [
      'Worth, by the prices of then',
      k.worth
        ? `${moneyText(k.worth.estimate, true)}, ${moneyText(k.worth.low, true)} – ${moneyText(k.worth.high, true)}`
        : 'no estimate',
    ],
  ] as const;
  return (
    <>
      <dl className="then">
        {lines.map(([name, text]) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd>{text}</dd>
          </div>
        ))}
      </dl>
      {k.papers.length > 0 && (
        <p>
          Issued by then, as it was:{' '}
          {k.papers.map((p) => (
            <a
              key={p.path}
              href={`/api/v1${p.path}`}
              target="_blank"
              rel="noreferrer"
              style={{ marginRight: 10 }}
            >
              {p.what}
            </a>
          ))}
        </p>
      )}
      <h3 style={{ fontSize: 13, margin: '10px 0 4px' }}>Since then</h3>
      {k.since.length === 0 && <p className="soft">Nothing was written.</p>}
      <ul>
        {k.since.map((c) => (
          <li key={`${c.at} ${c.kind}`}>
            <span className="num soft">{dayText(c.at)}</span> {sentence(c.kind)}{' '}
            <span className="soft">{c.by}</span>
          </li>
        ))}
      </ul>
    </>
  );
}

function decidedInWords({
  label,
  tier,
  reason,
  engineVersion,
  referenceRevision,
}: NonNullable<Known['decided']>): string {
  const states = [
    engineVersion === null ? '' : `engine ${engineVersion}`,
    referenceRevision === null ? '' : `reference ${referenceRevision}`,
  ].filter((state) => state !== '');
  return [`${label}, ${tier.replaceAll('-', ' ')}`, reason, states.length > 0 ? `(${states.join(', ')})` : '']
    .filter((part) => part !== '')
    .join('; ');
}
