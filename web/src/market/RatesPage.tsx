/** Exchange rates: the last of each currency and how it went, fetched daily, or read from somebody's list. */
import { Tick } from '../parts/fields/choices.tsx';
import { Table, type Column } from '../parts/table/Table.tsx';
import { marketRoutes, type RatesKnown } from '@jutbank/contract/market';
import { pricingSettingsRoutes, type VersionedSettings } from '@jutbank/contract/shop';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useMay } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { FileChooser } from '../parts/FileChooser.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { counted, dayText } from '../parts/words.ts';
import './rates.css';

const ERRORS_SHOWN = 12;

export default function RatesPage() {
  const mayWork = useMay('work');
  const rates = useAnswer(marketRoutes.listRates);
  if (rates.isPending) return <Loading />;
  if (rates.isError) return <Failed error={rates.error} retry={() => void rates.refetch()} />;
  const { base, latest, missing } = rates.data;
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>Exchange rates</PageTitle>
        <span className="soft">
          For one {base}. A price is converted at the last rate on or before its day; which one was used
          stands beside it in every estimate.
        </span>
      </div>
      {missing.map((m) => (
        <p key={m.currency} className="note bad" style={{ marginBottom: 10 }}>
          <b>No rate of {m.currency} is known.</b>
          {counted(m.prices)} {m.prices === 1 ? 'price is' : 'prices are'} left out of every estimate until
          there is one.
        </p>
      ))}
      <div className="rates">
        {latest.length === 0 ? (
          <p className="soft">
            None is stored yet. Fetch them, or take in a list; prices in {base} need none.
          </p>
        ) : (
          <Table label="Rates" rows={latest} columns={columnsFor(base)} keyOf={(r) => r.currency} />
        )}
        {mayWork && (
          <div>
            <Fetch />
            <FromList />
          </div>
        )}
      </div>
    </div>
  );
}

type Rate = RatesKnown['latest'][number];
const columnsFor = (base: string): readonly Column<Rate>[] => [
  {
    id: 'currency',
    head: 'Currency',
    lead: true,
    cell: (r) => <b className="mono">{r.currency}</b>,
    sortBy: (r) => r.currency,
  },
  { id: 'rate', head: `For one ${base}`, figure: true, cell: (r) => Number(r.rate).toFixed(4) },
  { id: 'day', head: 'Day', className: 'num', cell: (r) => dayText(r.date), sortBy: (r) => r.date },
  {
    id: 'course',
    head: 'How it went',
    cell: (r) => <Course rates={r.before.map((b) => Number(b.rate))} currency={r.currency} />,
  },
  {
    id: 'used',
    head: 'Prices in it',
    figure: true,
    cell: (r) => (r.used === 0 ? '–' : counted(r.used)),
    sortBy: (r) => r.used,
  },
  {
    id: 'from',
    head: 'From',
    className: 'soft',
    cell: (r) => (r.source === '' || r.source === 'sent' ? 'sent to the shop' : r.source),
  },
];

const WIDTH = 150;
const HEIGHT = 26;

/** How a rate went: its least and most told, the line between. */
function Course({ rates, currency }: { rates: readonly number[]; currency: string }) {
  if (rates.length < 2) return <span className="soft">one day only</span>;
  const [low, high] = [Math.min(...rates), Math.max(...rates)];
  const x = (i: number) => 2 + (i / (rates.length - 1)) * (WIDTH - 4);
  const y = (rate: number) => HEIGHT - 3 - ((rate - low) / (high - low || 1)) * (HEIGHT - 6);
  return (
    <svg
      className="course"
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`${currency} between ${low.toFixed(4)} and ${high.toFixed(4)} over ${rates.length} days`}
    >
      <polyline points={rates.map((rate, i) => `${x(i).toFixed(1)},${y(rate).toFixed(1)}`).join(' ')} />
      <circle cx={x(rates.length - 1)} cy={y(rates.at(-1) ?? 0)} r="2.4" />
    </svg>
  );
}

function Fetch() {
  const answers = useKeptAnswers();
  const mayDecide = useMay('appraise');
  const settings = useAnswer(pricingSettingsRoutes.settings);
  const fetch = useMutation({
    mutationFn: () => send(marketRoutes.fetchRates),
    onSuccess: () => answers.invalidate(marketRoutes.listRates),
  });
  const daily = useMutation({
    mutationFn: ({ dailyRates, seen }: { dailyRates: boolean; seen: VersionedSettings }) =>
      send(pricingSettingsRoutes.putSettings, {
        body: { ...seen.settings, dailyRates },
        version: seen.version,
      }),
    onSuccess: (kept) => answers.set(pricingSettingsRoutes.settings, {}, kept),
    onError: () => void settings.refetch(),
  });
  const problem = [fetch.error, daily.error].find((e) => e instanceof ApiProblem);
  return (
    <section>
      <h2 className="sec">From the source</h2>
      <div style={{ display: 'flex', gap: 16, alignItems: 'center', flexWrap: 'wrap' }}>
        <Button variant="contained" disabled={fetch.isPending} onClick={() => fetch.mutate()}>
          {fetch.isPending ? 'Fetching…' : 'Fetch up to today'}
        </Button>
        <Tick
          label="every day by itself"
          value={settings.data?.settings.dailyRates ?? false}
          disabled={!mayDecide || !settings.data || daily.isPending}
          onChange={(dailyRates) => settings.data && daily.mutate({ dailyRates, seen: settings.data })}
        />
      </div>
      {fetch.data && (
        <p role="status" style={{ marginTop: 8 }}>
          {fetch.data.source}: {counted(fetch.data.added)} new, {counted(fetch.data.updated)} changed, from{' '}
          {fetch.data.from} to {fetch.data.to}.
        </p>
      )}
      {problem && (
        <p className="problem" role="alert">
          {problem.message}
        </p>
      )}
    </section>
  );
}

function FromList() {
  const answers = useKeptAnswers();
  const sending = useMutation({
    mutationFn: async ({ file, check }: { file: File; check: boolean }) => {
      const form = new FormData();
      form.set('file', file);
      const read = await send(marketRoutes.importRates, {
        query: { check: check ? '1' : undefined },
        body: form,
      });
      return { file, check, read };
    },
    onSuccess: ({ check }) => {
      if (!check) void answers.invalidate(marketRoutes.listRates);
    },
  });
  const done = sending.data;
  const problem = sending.error instanceof ApiProblem ? sending.error : undefined;
  return (
    <section style={{ marginTop: 24 }}>
      <h2 className="sec">
        From a list <small>CSV: date, currency, rate; or a column for each currency</small>
      </h2>
      <FileChooser
        label="Choose a list of rates"
        accept=".csv,.txt,text/csv"
        disabled={sending.isPending}
        onChoose={(file) => sending.mutate({ file, check: true })}
      >
        {done?.file.name ?? 'Choose a CSV file'}
      </FileChooser>
      {done && (
        <p role="status" style={{ marginTop: 8 }}>
          {counted(done.read.rows)} rows: {done.check ? 'would bring' : 'brought'} {counted(done.read.added)}{' '}
          new rates, change {counted(done.read.updated)}; {counted(done.read.errors.length)} not readable.
        </p>
      )}
      {done?.read.errors.slice(0, ERRORS_SHOWN).map((e, i) => (
        <p key={i} className="problem">
          Line {e.line}
          {e.column === null ? '' : `, ${e.column}`}
          {e.value === '' ? '' : ` “${e.value.slice(0, 40)}”`}: {e.message}
        </p>
      ))}
      {done && done.read.errors.length > ERRORS_SHOWN && (
        <p className="problem">and {counted(done.read.errors.length - ERRORS_SHOWN)} more</p>
      )}
      {problem && (
        <p className="problem" role="alert">
          {problem.errors[0]?.message ?? problem.message}
        </p>
      )}
      {done?.check && done.read.added + done.read.updated > 0 && (
        <Button
          sx={{ mt: 1 }}
          variant="contained"
          disabled={sending.isPending}
          onClick={() => sending.mutate({ file: done.file, check: false })}
        >
          Take in the good ones
        </Button>
      )}
    </section>
  );
}
