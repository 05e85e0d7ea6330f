/** Rules a shop adds of its own: another cap on a scale, another part's own cost in the index. */
import { CellSelect, optionsOf, Select } from '../parts/fields/choices.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { Button } from '@mui/material';
import { useState, type ReactNode } from 'react';
import {
  defectInWords,
  DEFECTS,
  partInWords,
  PARTS,
  SEVERITIES,
  type Cap,
  type DeductionRule,
  type Defect,
  type IndexRules,
  type Part,
  type ScaleRules,
  type Severity,
} from '@jutbank/core/condition';
import { sentence } from '../parts/words.ts';

export function GradeSelect({
  label,
  rules,
  value,
  may,
  onChange,
}: {
  label: string;
  rules: ScaleRules;
  value: string;
  may: boolean;
  onChange: (grade: string) => void;
}) {
  return (
    <CellSelect
      label={label}
      disabled={!may}
      value={value}
      options={optionsOf(
        rules.grades.map((g) => g.grade),
        sentence,
      )}
      onChange={(grade) => grade !== null && onChange(grade)}
    />
  );
}

/** Shut until it is wanted: most of the time a table is only read. */
function Adding({ words, children }: { words: string; children: (shut: () => void) => ReactNode }) {
  const [open, setOpen] = useState(false);
  return open ? (
    children(() => setOpen(false))
  ) : (
    <Button sx={{ mt: 1 }} onClick={() => setOpen(true)}>
      {words}
    </Button>
  );
}

export function NewCap({ rules, onAdd }: { rules: ScaleRules; onAdd: (cap: Cap) => void }) {
  return (
    <Adding words="Another cap">{(shut) => <CapForm rules={rules} onAdd={onAdd} onShut={shut} />}</Adding>
  );
}

function CapForm({
  rules,
  onAdd,
  onShut,
}: {
  rules: ScaleRules;
  onAdd: (cap: Cap) => void;
  onShut: () => void;
}) {
  const [defect, setDefect] = useState<Defect>('crack');
  const [part, setPart] = useState<Part | ''>('');
  const [from, setFrom] = useState<Severity | ''>('');
  const [to, setTo] = useState(rules.grades[1]?.grade ?? '');
  const [says, setSays] = useState('');
  const usual = `${defectInWords(defect)}${part === '' ? '' : ` on ${partInWords(part)}`}: ${sentence(to).toLowerCase()} at most`;
  return (
    <form
      className="fieldrow newrule"
      aria-label="Another cap"
      onSubmit={(e) => {
        e.preventDefault();
        onAdd({
          id: freeId(`shop-${defect}`, rules.caps),
          defects: [defect],
          ...(part === '' ? {} : { parts: [part] }),
          ...(from === '' ? {} : { from }),
          to,
          says: says.trim() === '' ? usual : says.trim(),
        });
        onShut();
      }}
    >
      <Select
        label="When there is"
        value={defect}
        options={optionsOf(DEFECTS, defectInWords)}

        onChange={(d) => d !== null && setDefect(d)}
      />
      <Select
        label="on"
        value={part}
        options={optionsOf(PARTS, partInWords)}
        none="any part"
        onChange={(v) => setPart(v ?? '')}
      />
      <Select
        label="from"
        value={from}
        options={optionsOf(SEVERITIES, sentence)}

        none="any severity"
        onChange={(v) => setFrom(v ?? '')}
      />
      <Select
        label="at most"
        value={to}
        options={optionsOf(
          rules.grades.map((g) => g.grade),
          sentence,
        )}

        onChange={(v) => v !== null && setTo(v)}
      />
      <TextInput label="In words" maxLength={200} value={says} placeholder={usual} onChange={setSays} />
      <Button type="submit" variant="contained">
        Add the cap
      </Button>
      <Button onClick={onShut}>Not now</Button>
    </form>
  );
}

export function NewDeduction({ rules, onAdd }: { rules: IndexRules; onAdd: (rule: DeductionRule) => void }) {
  return (
    <Adding words="A part’s own cost">
      {(shut) => <DeductionForm rules={rules} onAdd={onAdd} onShut={shut} />}
    </Adding>
  );
}

/** What a defect costs on one part: begins with what it costs anywhere else, to be changed in the table. */
function DeductionForm({
  rules,
  onAdd,
  onShut,
}: {
  rules: IndexRules;
  onAdd: (rule: DeductionRule) => void;
  onShut: () => void;
}) {
  const [defect, setDefect] = useState<Defect>('scratch');
  const [part, setPart] = useState<Part>('shield');
  const general = rules.deductions.find((r) => r.defect === defect && r.parts === undefined);
  const there = rules.deductions.some((r) => r.defect === defect && r.parts?.includes(part));
  return (
    <form
      className="fieldrow newrule"
      aria-label="A part’s own cost"
      onSubmit={(e) => {
        e.preventDefault();
        if (!general || there) return;
        onAdd({ ...general, parts: [part] });
        onShut();
      }}
    >
      <Select
        label="What costs a"
        value={defect}
        options={optionsOf(DEFECTS, defectInWords)}

        onChange={(d) => d !== null && setDefect(d)}
      />
      <Select
        label="on the"
        value={part}
        options={optionsOf(PARTS, partInWords)}

        onChange={(p) => p !== null && setPart(p)}
      />
      <Button type="submit" variant="contained" disabled={!general || there}>
        Add the row
      </Button>
      <Button onClick={onShut}>Not now</Button>
      <span className="soft">
        {there
          ? 'It has a row of its own already.'
          : 'It begins with what it costs anywhere else; change the numbers in the table.'}
      </span>
    </form>
  );
}

function freeId(wanted: string, taken: readonly { readonly id: string }[]): string {
  const ids = new Set(taken.map((t) => t.id));
  let id = wanted;
  for (let n = 2; ids.has(id); n++) id = `${wanted}-${n}`;
  return id;
}
