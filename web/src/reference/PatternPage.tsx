/** A pattern's forms along the year rule, and what changed from one to the next. */
import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { edtfInWords } from '@jutbank/core/dates';
import type { Variant } from '@jutbank/core/reference';
import type { PatternDetail, Vocabulary } from '@jutbank/contract/reference';
import { get } from '../app/api.ts';
import { Failed, Loading } from '../app/states.tsx';
import { Outline } from '../parts/Drawn.tsx';
import { CONSTRUCTION_WORDS, sentence } from '../parts/words.ts';
import { YearRule, type RuleBar } from '../parts/YearRule.tsx';

export default function PatternPage() {
  const { id = '' } = useParams();
  const detail = useQuery({
    queryKey: ['pattern', id],
    queryFn: () => get<PatternDetail>(`/reference/patterns/${id}`),
  });
  const vocabulary = useQuery({
    queryKey: ['vocabulary'],
    queryFn: () => get<Vocabulary>('/reference/vocabulary'),
    staleTime: 60_000,
  });
  if (detail.isError) return <Failed error={detail.error} retry={() => void detail.refetch()} />;
  if (!detail.data || !vocabulary.data) return <Loading />;
  const { pattern, maker, variants } = detail.data;
  const bars = variants.flatMap((v): RuleBar[] =>
    v.window == null
      ? []
      : [
          {
            label: v.name,
            source:
              v.made?.quantity == null
                ? 'number unknown'
                : `${v.made.quantity.toLocaleString('en-GB').replaceAll(',', ' ')} made`,
            strict: [v.window],
            lenient: [],
            binds: 'both',
          },
        ],
  );
  return (
    <div className="page">
      <div className="pagehead">
        <Outline construction={pattern.construction} width={92} />
        <h1>{pattern.name}</h1>
        <span className="soft">
          <Link to={`/reference?maker=${maker.id}`}>{maker.name}</Link> ·{' '}
          {CONSTRUCTION_WORDS[pattern.construction]}
          {pattern.number != null && <span className="mono"> · no. {pattern.number}</span>}
        </span>
      </div>
      <div className="twocol">
        <section>
          <h2 className="sec">Forms along the years</h2>
          <YearRule core={undefined} bars={bars} label={`Forms of ${pattern.name}`} />
        </section>
        <section>
          <h2 className="sec">
            What changed <small>each against the one before it</small>
          </h2>
          <table className="grid">
            <tbody>
              {variants.map((v, i) => (
                <tr key={v.id}>
                  <td style={{ width: '42%' }}>
                    <Link to={`/reference/variants/${v.id}`}>{v.name}</Link>
                    <div className="soft" style={{ fontSize: 12 }}>
                      {v.window == null ? 'not dated' : edtfInWords(v.window)}
                      {v.kind !== 'production' && ` · ${sentence(v.kind).toLowerCase()}`}
                    </div>
                  </td>
                  <td className="soft">{changes(variants[i - 1], v, vocabulary.data)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      </div>
    </div>
  );
}

function changes(before: Variant | undefined, v: Variant, vocabulary: Vocabulary): string {
  if (!before) return 'where it begins';
  const words = Object.entries(v.features ?? {}).flatMap(([feature, values]) => {
    if (JSON.stringify(before.features?.[feature]) === JSON.stringify(values)) return [];
    const known = vocabulary.features.find((f) => f.id === feature);
    const said = values
      .map((value) => known?.values?.find((x) => x.id === value)?.label.toLowerCase() ?? String(value))
      .join(' or ');
    return [`${known?.label.toLowerCase() ?? feature}: ${said}`];
  });
  return words.length === 0 ? 'nothing that can be seen' : words.join('; ');
}
