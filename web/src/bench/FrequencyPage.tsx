/** How often things come to this shop's bench: what was learnt, from how many, how far it is believed. */
import { benchRoutes, type FrequencyAnswer } from '@jutbank/contract/bench';
import { Tick } from '../parts/fields/choices.tsx';
import { useMutation } from '@tanstack/react-query';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { send } from '../base/api.ts';
import { useMay } from '../base/session.ts';
import { Empty, Failed, Loading } from '../base/states.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { counted, sentence } from '../parts/words.ts';
import './bench.css';

const LEVELS: Record<FrequencyAnswer['learnt'][number]['levels'][number]['level'], string> = {
  kind: 'Kinds, within their pattern',
  maker: 'Makers and constructions',
  pattern: 'Patterns, within their maker',
  variant: 'Variants, within their pattern',
  counterfeit: 'Counterfeits, among counterfeits',
};
const FROM = {
  sold: 'From sold comparables',
  own: 'From pieces decided here',
  both: 'Counterfeits met',
} as const;

export default function FrequencyPage() {
  const answers = useKeptAnswers();
  const may = useMay('appraise');
  const query = useAnswer(benchRoutes.frequency);
  const learn = useMutation({
    mutationFn: (learns: boolean) => send(benchRoutes.putFrequency, { body: { learns } }),
    onSuccess: () => void answers.invalidateAll(),
  });
  if (query.isPending) return <Loading />;
  if (query.isError) return <Failed error={query.error} retry={() => void query.refetch()} />;
  const { learns, learnt, exponents, unlisted } = query.data;
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>How often things turn up</PageTitle>
        <span className="soft">of two that fit alike, the one that turns up more is likelier</span>
        <span className="grow" />
        <Tick
          label="Learn from sales and decisions"
          value={learns}
          disabled={!may || learn.isPending}
          onChange={(next) => learn.mutate(next)}
        />
      </div>
      <p style={{ maxWidth: '72ch' }}>
        To begin with it goes by how many were made and are still about, to the power 0.6: rare, numbered and
        collected things are kept, traded and shown more than their share. What this shop has met corrects it.
        A piece that no variant of the reference is right for is expected {(100 * unlisted).toFixed(1)} times
        in 100.
      </p>
      {learnt.length === 0 && (
        <Empty title={learns ? 'Nothing to learn from yet' : 'Nothing is learnt'}>
          <p className="soft">
            {learns
              ? 'Sold comparables that name a pattern or a variant, and pieces decided here, are counted once each. Asking prices and offers are not.'
              : 'Weights go by production alone.'}
          </p>
        </Empty>
      )}
      {exponents.length > 0 && (
        <section style={{ marginTop: 16 }}>
          <h2 className="sec">How strongly rarity counts, by maker</h2>
          <ul className="exponents">
            {exponents.map((e) => (
              <li key={e.maker}>
                {e.name} <span className="num">{e.exponent.toFixed(2)}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {learnt.map((source) => (
        <section key={source.from} aria-label={FROM[source.from]}>
          <h2 className="sec" style={{ marginTop: 18 }}>
            {FROM[source.from]}{' '}
            <small>
              {counted(source.named)} that name a variant
              {source.unnamed > 0 && `, ${counted(source.unnamed)} a pattern only`}
            </small>
          </h2>
          <div className="frequencies">
            {source.levels
              .filter((level) => level.factors.length > 0)
              .map((level) => (
                <div key={level.level}>
                  <div className="effort">
                    {LEVELS[level.level]}
                    {level.trust < 0.995 && `, believed ${Math.round(100 * level.trust)} in 100`}
                  </div>
                  <table className="grid">
                    <thead>
                      <tr>
                        <th>What</th>
                        <th className="r">Seen</th>
                        <th className="r">Expected</th>
                        <th className="r">Counts</th>
                      </tr>
                    </thead>
                    <tbody>
                      {level.factors.slice(0, SHOWN).map((f) => (
                        <tr key={f.id}>
                          <td>{sentence(f.name)}</td>
                          <td className="r num">{counted(f.seen)}</td>
                          <td className="r num">{f.expected.toFixed(1)}</td>
                          <td className="r num">× {f.factor.toFixed(2)}</td>
                        </tr>
                      ))}
                    </tbody>
                  </table>
                </div>
              ))}
          </div>
        </section>
      ))}
    </div>
  );
}
const SHOWN = 12;
