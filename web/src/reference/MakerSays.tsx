/** What the reference says of one maker beside its patterns and stamps: codes, dated customs, stories. */
import { referenceRoutes, type Vocabulary } from '@jutbank/contract/reference';
import { Link } from 'react-router';
import { edtfInWords } from '@jutbank/core/dates';
import type { DatedWindow, Story } from '@jutbank/core/reference';
import { useAnswer } from '../base/answers.ts';
import { useMay } from '../base/session.ts';
import { sentence } from '../parts/words.ts';

const NEW = [
  ['patterns', 'pattern'],
  ['marks', 'stamp'],
  ['codes', 'code'],
  ['windows', 'dated window'],
  ['stories', 'story'],
] as const;

export function WriteLinks({ maker }: { maker: string }) {
  const may = useMay('appraise');
  if (!may) return null;
  return (
    <nav aria-label="Write" className="chips" style={{ marginBottom: 12 }}>
      <Link className="chip" to={`/reference/write/makers/${maker}`}>
        Edit maker
      </Link>
      {NEW.map(([section, word]) => (
        <Link key={section} className="chip" to={`/reference/write/${section}?maker=${maker}`}>
          + {word}
        </Link>
      ))}
    </nav>
  );
}

export function MakerSays({ maker, words }: { maker: string; words: Vocabulary }) {
  const detail = useAnswer(referenceRoutes.maker, { params: { id: maker } });
  if (!detail.data) return null;
  const { codes, windows, stories } = detail.data;
  return (
    <>
      {codes.length > 0 && (
        <>
          <h2 className="sec" style={{ marginTop: 20 }}>
            Codes
          </h2>
          {codes.map((c) => (
            <div key={c.id} className="f" style={{ gridTemplateColumns: '1fr auto' }}>
              <Link to={`/reference/write/codes/${c.id}`}>{c.title ?? c.id}</Link>
              <span className="soft">{sentence(c.kind)}</span>
            </div>
          ))}
        </>
      )}
      {windows.length > 0 && <Customs windows={windows} words={words} />}
      <Stories stories={stories} words={words} />
    </>
  );
}

/** Dated values, feature by feature; sources that disagree stand under each other. */
function Customs({ windows, words }: { windows: readonly DatedWindow[]; words: Vocabulary }) {
  const features = [...new Set(windows.map((w) => w.feature))];
  const title = (id: string | null | undefined) =>
    words.sources.find((s) => s.id === id)?.title ?? 'no source';
  return (
    <>
      <h2 className="sec" style={{ marginTop: 20 }}>
        What was usual when <small>two sources on one value: the strict and the lenient bracket follow</small>
      </h2>
      <table className="grid">
        <tbody>
          {features.flatMap((f) => {
            const feature = words.features.find((x) => x.id === f);
            const own = windows.filter((w) => w.feature === f);
            return own.map((w, i) => {
              const disputed = own.some(
                (o) => o.value === w.value && o.pattern === w.pattern && o.source !== w.source,
              );
              return (
                <tr key={w.id}>
                  <td>{i === 0 && (feature?.label ?? f)}</td>
                  <td>
                    <Link to={`/reference/write/windows/${w.id}`}>
                      {feature?.values?.find((v) => v.id === w.value)?.label ?? w.value}
                    </Link>
                    {w.pattern != null && (
                      <span className="soft">
                        {' '}
                        on the {words.patterns.find((p) => p.id === w.pattern)?.name}
                      </span>
                    )}
                  </td>
                  <td className="num">{edtfInWords(w.window)}</td>
                  <td className={disputed ? 'warn' : 'soft'}>
                    {disputed && 'disagree: '}
                    {title(w.source)}
                    {w.page != null && `, p. ${w.page}`}
                  </td>
                </tr>
              );
            });
          })}
        </tbody>
      </table>
    </>
  );
}

const VERDICT = {
  open: ['Open question', 'note'],
  supported: ['Supported', 'note good'],
  refuted: ['Refuted', 'note bad'],
} as const;

export function Stories({ stories, words }: { stories: readonly Story[]; words: Vocabulary }) {
  if (stories.length === 0) return null;
  return (
    <>
      <h2 className="sec" style={{ marginTop: 20 }}>
        What is told
      </h2>
      {stories.map((s) => (
        <div key={s.id} className={VERDICT[s.verdict][1]} style={{ marginBottom: 8 }}>
          <b>
            <Link to={`/reference/write/stories/${s.id}`}>{VERDICT[s.verdict][0]}</Link>
          </b>{' '}
          {s.told}
          {(s.because != null || s.source != null) && (
            <div className="soft" style={{ fontSize: 12.5 }}>
              {s.because} {words.sources.find((x) => x.id === s.source)?.title}
              {s.page != null && `, p. ${s.page}`}
            </div>
          )}
        </div>
      ))}
    </>
  );
}
