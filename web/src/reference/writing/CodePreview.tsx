/** Beside the code editor: a field to try a stamp, every reading in a table, and what is doubtful about the rules. */
import { Select, optionsOf } from '../../parts/fields/choices.tsx';
import { TextInput } from '../../parts/fields/TextInput.tsx';
import { useState } from 'react';
import { edtfInWords, parsePeriod } from '@jutbank/core/dates';
import {
  codeDoubts,
  codeTable,
  impliedValues,
  parsePatternNumber,
  readDateCode,
  readSerial,
  whyNotAFormat,
  type Code,
  type DateCode,
  type ImpliedFeature,
  type PatternNumberCode,
  type SerialCode,
} from '@jutbank/core/reference';
import type { Vocabulary } from '@jutbank/contract/reference';

const isPeriod = (text: string) => parsePeriod(text).ok;

export function CodePreview({ code, words }: { code: Partial<Code> & { id: string }; words: Vocabulary }) {
  if (code.kind === 'date' && code.reads && code.rules) {
    const sound = code.rules.every((r) => windowsOf(r.year).every(isPeriod));
    if (!sound) return <p className="soft">The table appears when every date in the rules can be read.</p>;
    return <DatePreview code={code as DateCode} words={words} />;
  }
  if (code.kind === 'pattern-number' && code.segments)
    return <PatternNumberPreview code={code as PatternNumberCode} words={words} />;
  if (code.kind === 'serial') return <SerialPreview code={code as SerialCode} />;
  return null;
}

const windowsOf = (year: DateCode['rules'][number]['year']): string[] =>
  'ranges' in year ? year.ranges.map((r) => r.window) : 'table' in year ? Object.values(year.table) : [];

function DatePreview({ code, words }: { code: DateCode; words: Vocabulary }) {
  const bearing = words.marks.filter((m) => m.codes?.includes(code.id)).flatMap((m) => m.window ?? []);
  const active = words.makers.find((m) => m.id === code.maker)?.active;
  const eras = bearing.length > 0 ? bearing : active == null ? [] : [active];
  const doubts = codeDoubts(code, eras);
  if (code.reads.length === 0 || code.rules.length === 0)
    return (
      <p className="soft">
        Say what is read and add a rule: every reading appears here, with a field to try a stamp.
      </p>
    );
  return (
    <>
      <TryReads code={code} />
      {doubts.map((d) => (
        <p key={d.text} className="note bad">
          <b>{DOUBT_WORDS[d.kind]}</b> {d.text}
        </p>
      ))}
      {doubts.length === 0 && code.rules.length > 0 && (
        <p className="note good">
          <b>Every stamp has one reading</b> and none lies outside the stamp’s era.
        </p>
      )}
      <ReadingTable code={code} />
    </>
  );
}
const DOUBT_WORDS = { double: 'Two readings', gap: 'Not covered', 'outside-era': 'Outside its era' } as const;

function TryReads({ code }: { code: DateCode }) {
  const [reads, setReads] = useState<Record<string, string>>({});
  const asked = Object.fromEntries(
    Object.entries(reads).filter(([id, v]) => v !== '' && code.reads.some((r) => r.id === id)),
  );
  const result = readDateCode(code, asked);
  return (
    <section aria-label="Try a stamp">
      <h2 className="sec">Try a stamp</h2>
      <div className="fields across">
        {code.reads.map((r) =>
          r.type === 'choice' ? (
            <Select
              key={r.id}
              label={r.label || 'unnamed'}
              none="not read"
              value={reads[r.id] ?? ''}
              options={optionsOf(r.values ?? [], (v) => v)}
              onChange={(v) => setReads({ ...reads, [r.id]: v ?? '' })}
            />
          ) : (
            <TextInput
              key={r.id}
              label={r.label || 'unnamed'}
              inputMode="numeric"
              value={reads[r.id] ?? ''}
              onChange={(v) => setReads({ ...reads, [r.id]: v })}
            />
          ),
        )}
      </div>
      <p role="status" className={result.ok ? 'tried' : 'problem'}>
        {!result.ok
          ? result.error.message
          : Object.keys(asked).length === 0
            ? ''
            : result.value.length === 0
              ? 'No rule reads this stamp.'
              : result.value
                  .map((r) => edtfInWords(r.window))
                  .slice(0, 12)
                  .join(' or ')}
      </p>
    </section>
  );
}

const MOST_ROWS = 60;

/** Two reads make a matrix; more make a list. */
function ReadingTable({ code }: { code: DateCode }) {
  const table = codeTable(code);
  if (!table || table.length === 0) return <p className="soft">Too many stamps to list; try one above.</p>;
  const cell = (windows: readonly string[]) =>
    windows.length === 0 ? '–' : windows.map((w) => edtfInWords(w)).join(' / ');
  const [rowRead, columnRead] = [...code.reads].sort((a, b) =>
    a.type === b.type ? 0 : a.type === 'count' ? -1 : 1,
  );
  if (code.reads.length === 2 && rowRead && columnRead) {
    const rows = [...new Set(table.map((t) => t.reads[rowRead.id]))];
    const columns = [...new Set(table.map((t) => t.reads[columnRead.id]))];
    return (
      <div className="scroll" tabIndex={0} role="region" aria-label="All readings">
        <table className="grid readings-table">
          <thead>
            <tr>
              <th>{rowRead.label}</th>
              {columns.map((c) => (
                <th key={String(c)}>{c}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.slice(0, MOST_ROWS).map((r) => (
              <tr key={String(r)}>
                <th scope="row" className="num">
                  {r}
                </th>
                {columns.map((c) => {
                  const found = table.find((t) => t.reads[rowRead.id] === r && t.reads[columnRead.id] === c);
                  const windows = found?.windows ?? [];
                  return (
                    <td key={String(c)} className={windows.length === 1 ? 'num' : 'num warn'}>
                      {cell(windows)}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    );
  }
  return (
    <div className="scroll" tabIndex={0} role="region" aria-label="All readings">
      <table className="grid readings-table">
        <thead>
          <tr>
            {code.reads.map((r) => (
              <th key={r.id}>{r.label}</th>
            ))}
            <th>Made</th>
          </tr>
        </thead>
        <tbody>
          {table.slice(0, MOST_ROWS).map((t) => (
            <tr key={JSON.stringify(t.reads)}>
              {code.reads.map((r) => (
                <td key={r.id} className="num">
                  {t.reads[r.id]}
                </td>
              ))}
              <td className={t.windows.length === 1 ? 'num' : 'num warn'}>{cell(t.windows)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {table.length > MOST_ROWS && <p className="soft">and {table.length - MOST_ROWS} more</p>}
    </div>
  );
}

function PatternNumberPreview({ code, words }: { code: PatternNumberCode; words: Vocabulary }) {
  const [text, setText] = useState('');
  const isPattern = (number: string) =>
    words.patterns.some((p) => p.number === number && (code.maker == null || p.maker === code.maker));
  const read = parsePatternNumber(code, text.trim(), isPattern);
  const parses = text.trim() === '' ? [] : read.partly ? [read.partly] : read.parses;
  const meaning = (implied: ImpliedFeature) => {
    const f = words.features.find((x) => x.id === implied.feature);
    const values = impliedValues(implied).map(
      (value) => f?.values?.find((v) => v.id === value)?.label.toLowerCase() ?? value,
    );
    return `${f?.label ?? implied.feature}: ${values.join(' or ')}`;
  };
  return (
    <>
      <section aria-label="Try a stamp">
        <h2 className="sec">Try a stamp</h2>
        <TextInput label="Stamp" mono value={text} onChange={setText} />
        <div role="status">
          {text.trim() !== '' && parses.length === 0 && (
            <p className="problem">The segments cannot read this stamp.</p>
          )}
          {read.partly && text.trim() !== '' && (
            <p className="problem">“{read.partly.unread}” is not known; the rest is read as likely.</p>
          )}
          {parses.map((p, i) => (
            <p key={i} className="tried">
              {[
                ...p.implies.map(meaning),
                ...(p.patternNumber === undefined
                  ? []
                  : [
                      `Pattern ${words.patterns.find((x) => x.number === p.patternNumber && (code.maker == null || x.maker === code.maker))?.name ?? `no. ${p.patternNumber}, which is not in the reference`}`,
                    ]),
              ].join('; ')}
            </p>
          ))}
          {parses.length > 1 && (
            <p className="note bad">
              <b>Two readings</b> the same stamp can be cut in {parses.length} ways.
            </p>
          )}
        </div>
      </section>
      <table className="grid readings-table">
        <thead>
          <tr>
            <th>Segment</th>
            <th>Sign</th>
            <th>Means</th>
          </tr>
        </thead>
        <tbody>
          {code.segments.flatMap((s, i) =>
            s.literal != null
              ? [
                  <tr key={`${i}`}>
                    <td>{s.id}</td>
                    <td className="mono">{s.literal}</td>
                    <td>stands there in every stamp</td>
                  </tr>,
                ]
              : s.digits != null
                ? [
                    <tr key={`${i}`}>
                      <td>{s.id}</td>
                      <td className="mono">{s.digits} digits</td>
                      <td>
                        {s.pattern
                          ? 'the pattern’s number'
                          : words.features.find((f) => f.id === s.feature)?.label}
                      </td>
                    </tr>,
                  ]
                : Object.entries(s.table ?? {}).map(([sign, m], k) => (
                    <tr key={`${i} ${k}`}>
                      <td>{s.id}</td>
                      <td className="mono">{sign}</td>
                      <td>{meaning(m)}</td>
                    </tr>
                  )),
          )}
        </tbody>
      </table>
    </>
  );
}

function SerialPreview({ code }: { code: SerialCode }) {
  const [text, setText] = useState('');
  const wrong = whyNotAFormat(code.format, code.number);
  if (wrong) return <p className="problem">{wrong}</p>;
  const number = readSerial(code, text)?.number;
  return (
    <section aria-label="Try a stamp">
      <h2 className="sec">Try a stamp</h2>
      <TextInput label="Serial" mono value={text} onChange={setText} />
      <p role="status" className={text !== '' && number === undefined ? 'problem' : 'tried'}>
        {text === ''
          ? ''
          : number === undefined
            ? 'This does not have the form of the serial.'
            : `Number ${number}`}
      </p>
    </section>
  );
}
