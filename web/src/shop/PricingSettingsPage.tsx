/** How the shop reckons: channels, tax, what it wants to keep, habits of buying; with a sale worked through beside it. */
import { pieceRoutes } from '@jutbank/contract/pieces';
import { pricingSettingsRoutes, type VersionedSettings, type PricingSettings } from '@jutbank/contract/shop';
import { Button, Tab, Tabs } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useMay, useSession } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { AmountInput, NumberInput } from '../parts/fields/figures.tsx';
import { Select } from '../parts/fields/choices.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { WorkedSale } from './WorkedSale.tsx';
import './shop.css';

export default function PricingSettingsPage() {
  const settings = useAnswer(pricingSettingsRoutes.settings);
  // the form begins anew with each version; which of them was kept here is known outside of it
  const [kept, setKept] = useState<number>();
  if (settings.isPending) return <Loading />;
  if (settings.isError) return <Failed error={settings.error} retry={() => void settings.refetch()} />;
  const { version } = settings.data;
  return <Form key={version} seen={settings.data} justKept={kept === version} onKept={setKept} />;
}

const CHANNEL_FIGURES = [
  ['commissionPct', 'Commission', '%', 'number'],
  ['commissionMin', 'Commission at least', '', 'amount'],
  ['commissionMax', 'Commission at most', '', 'amount'],
  ['fixedFee', 'Fixed fee', '', 'amount'],
  ['paymentPct', 'Payment', '%', 'number'],
  ['paymentFixed', 'Each payment', '', 'amount'],
  ['taxOnFeesPct', 'Tax on fees', '%', 'number'],
  ['postageCharged', 'Postage charged', '', 'amount'],
  ['postageCost', 'Postage costs', '', 'amount'],
  ['packing', 'Packing', '', 'amount'],
  ['insurancePct', 'Insurance', '% of the price', 'number'],
] as const;
const BUYING_FIGURES = [
  ['premiumPct', 'Buyer’s premium', '%', 'number'],
  ['premiumMin', 'Premium at least', '', 'amount'],
  ['taxOnPremiumPct', 'Tax on the premium', '%', 'number'],
  ['taxOnHammerPct', 'Tax on the hammer price', '%', 'number'],
  ['otherCosts', 'Way and postage', '', 'amount'],
  ['increment', 'Bids in steps of', '', 'amount'],
] as const;
const TAX_WORDS = {
  none: 'no tax in the price',
  sales: 'on the whole sale',
  margin: 'on the margin only',
} as const;
const CARE_WORDS = {
  careful: 'careful: one in four brings less',
  even: 'even: the middle',
  bold: 'bold: three in five bring less',
} as const;

function Form({
  seen,
  justKept,
  onKept,
}: {
  seen: VersionedSettings;
  justKept: boolean;
  onKept: (version: number) => void;
}) {
  const { shop } = useSession();
  const may = useMay('appraise');
  const answers = useKeptAnswers();
  // fields in which no number stands: nothing is kept until one does
  const [unread, setUnread] = useState<readonly string[]>([]);
  const [draft, setDraft] = useState<PricingSettings>(seen.settings);
  const [at, setAt] = useState(() =>
    Math.max(
      0,
      seen.settings.channels.findIndex((c) => c.id === seen.settings.usualChannel),
    ),
  );
  const save = useMutation({
    mutationFn: () => send(pricingSettingsRoutes.putSettings, { body: draft, version: seen.version }),
    onSuccess: (kept) => {
      onKept(kept.version);
      answers.set(pricingSettingsRoutes.settings, {}, kept);
      void answers.invalidateBelow(`${pieceRoutes.piece.path}/`);
    },
  });
  const problem = save.error instanceof ApiProblem ? save.error : undefined;
  const changed = JSON.stringify(draft) !== JSON.stringify(seen.settings);
  const change = (next: Partial<PricingSettings>) => setDraft({ ...draft, ...next });
  const channel = draft.channels[at] ?? draft.channels[0];
  const money = shop.baseCurrency;
  const figure = (
    label: string,
    pointer: string,
    value: unknown,
    as: 'number' | 'amount',
    unit: string,
    put: (value: never) => void,
  ) =>
    as === 'amount' ? (
      <AmountInput
        key={pointer}
        label={label}
        currency={unit === '' ? money : unit}
        value={typeof value === 'string' ? value : null}
        disabled={!may}
        problem={problem?.at(pointer)}
        onChange={(amount) => put(amount as never)}
      />
    ) : (
      <NumberInput
        key={pointer}
        label={label}
        unit={unit}
        value={typeof value === 'number' ? value : null}
        disabled={!may}
        problem={problem?.at(pointer)}
        onChange={(number, understood) => {
          setUnread(understood ? unread.filter((p) => p !== pointer) : [...unread, pointer]);
          put(number as never);
        }}
      />
    );
  const another = () => {
    const id = freeId(draft.channels.map((c) => c.id));
    change({ channels: [...draft.channels, { id, name: '', channel: {} }] });
    setAt(draft.channels.length);
  };
  const setChannel = (next: Partial<PricingSettings['channels'][number]>) =>
    change({ channels: draft.channels.map((c, i) => (i === at ? { ...c, ...next } : c)) });
  const group = (title: string, small: string, children: ReactNode) => (
    <section>
      <h2 className="sec">
        {title} <small>{small}</small>
      </h2>
      <div className="fields across">{children}</div>
    </section>
  );
  const pick = <T extends string>(
    label: string,
    value: T,
    words: Readonly<Record<T, string>>,
    put: (value: T) => void,
  ) => (
    <Select
      label={label}
      value={value}
      disabled={!may}
      options={(Object.keys(words) as T[]).map((k) => ({ value: k, label: words[k] }))}
      onChange={(next) => next !== null && put(next)}
    />
  );
  const { target } = draft;
  const kind = 'marginPct' in target ? 'marginPct' : 'markUpPct' in target ? 'markUpPct' : 'profit';
  return (
    <form
      className="page"
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <div className="pagehead">
        <h1>Pricing settings</h1>
        <span className="soft">Every ceiling, ask and net in the shop comes from these.</span>
        <span className="grow" />
        {may && changed && <span className="soft">not kept yet</span>}
        {justKept && !changed && <span className="soft">Kept.</span>}
        {may && (
          <Button
            type="submit"
            variant="contained"
            disabled={save.isPending || !changed || unread.length > 0}
          >
            Keep
          </Button>
        )}
      </div>
      {problem && (
        <p className="note bad" role="alert">
          {problem.status === 412
            ? 'Somebody changed these meanwhile. What you typed is still here; reload the page to see theirs.'
            : problem.errors.length > 0
              ? 'Not kept: see what stands in red.'
              : problem.message}
        </p>
      )}
      <div className="pricing-settings">
        <div>
          <section>
            <h2 className="sec">
              Channels <small>what each keeps of a price</small>
            </h2>
            <Tabs
              value={at}
              variant="scrollable"
              aria-label="Channels"
              onChange={(_, next: number) => (next < draft.channels.length ? setAt(next) : another())}
            >
              {draft.channels.map((c) => (
                <Tab
                  key={c.id}
                  label={
                    <span>
                      {c.name === '' ? 'unnamed' : c.name}
                      {c.id === draft.usualChannel && <span className="soft"> usual</span>}
                    </span>
                  }
                />
              ))}
              {may && draft.channels.length < 12 && <Tab label="+ another" />}
            </Tabs>
            {channel && (
              <div className="fields across" key={channel.id} style={{ marginTop: 12 }}>
                <TextInput
                  label="Called"
                  value={channel.name}
                  disabled={!may}
                  problem={problem?.at(`/channels/${at}/name`)}
                  onChange={(name) => setChannel({ name })}
                />
                {CHANNEL_FIGURES.map(([key, label, unit, as]) =>
                  figure(label, `/channels/${at}/channel/${key}`, channel.channel[key], as, unit, (value) =>
                    setChannel({ channel: { ...channel.channel, [key]: value } }),
                  ),
                )}
                {pick(
                  'Commission on',
                  channel.channel.commissionOn ?? 'price',
                  { price: 'the price', 'price-and-postage': 'price and postage' },
                  (commissionOn) => setChannel({ channel: { ...channel.channel, commissionOn } }),
                )}
              </div>
            )}
            {may && channel && (
              <p style={{ marginTop: 8, display: 'flex', gap: 12 }}>
                {channel.id !== draft.usualChannel && (
                  <Button variant="text" onClick={() => change({ usualChannel: channel.id })}>
                    Reckon with this one
                  </Button>
                )}
                {draft.channels.length > 1 && channel.id !== draft.usualChannel && (
                  <Button
                    variant="text"
                    onClick={() => {
                      change({ channels: draft.channels.filter((c) => c.id !== channel.id) });
                      setAt(0);
                    }}
                  >
                    Take it off the list
                  </Button>
                )}
              </p>
            )}
          </section>
          {group(
            'Buying',
            'what comes on top of a bid',
            BUYING_FIGURES.map(([key, label, unit, as]) =>
              figure(label, `/buying/${key}`, draft.buying[key], as, unit, (value) =>
                change({ buying: { ...draft.buying, [key]: value } }),
              ),
            ),
          )}
          {group(
            'Wanted',
            'what must be left, and how boldly it is counted on',
            <>
              {pick(
                'As a',
                kind,
                {
                  marginPct: 'margin: share of what is left',
                  markUpPct: 'mark-up: share of the cost',
                  profit: 'sum',
                },
                (next) =>
                  change({
                    target:
                      next === 'profit'
                        ? { profit: '20.00' }
                        : next === 'marginPct'
                          ? { marginPct: 30 }
                          : { markUpPct: 40 },
                  }),
              )}
              <span key={kind}>
                {figure(
                  'At least',
                  `/target`,
                  (target as Record<string, unknown>)[kind],
                  kind === 'profit' ? 'amount' : 'number',
                  kind === 'profit' ? '' : '%',
                  (value) => change({ target: { [kind]: value } as unknown as PricingSettings['target'] }),
                )}
              </span>
              {pick('Counted on', draft.care, CARE_WORDS, (care) => change({ care }))}
              {figure(
                'Keeping a piece',
                '/holdingPerMonth',
                draft.holdingPerMonth,
                'amount',
                `${money} a month`,
                (value) => change({ holdingPerMonth: value }),
              )}
            </>,
          )}
          {group(
            'Tax',
            'held in the price; which of the two you may use is for your tax adviser to say',
            <>
              {pick('Falls', draft.tax.on, TAX_WORDS, (on) => change({ tax: { ...draft.tax, on } }))}
              {draft.tax.on !== 'none' &&
                figure('Rate', '/tax/pct', draft.tax.pct, 'number', '%', (pct) =>
                  change({ tax: { ...draft.tax, pct } }),
                )}
            </>,
          )}
          {group(
            'Sealed pieces',
            'keep sealed or open',
            <>
              {figure(
                'A seal brings',
                '/sealed/premiumPct',
                draft.sealed.premiumPct,
                'number',
                '% more',
                (v) => change({ sealed: { ...draft.sealed, premiumPct: v } }),
              )}
              {figure('Flawed inside', '/sealed/faultPct', draft.sealed.faultPct, 'number', 'in 100', (v) =>
                change({ sealed: { ...draft.sealed, faultPct: v } }),
              )}
              {figure('A flaw takes', '/sealed/lossPct', draft.sealed.lossPct, 'number', '%', (v) =>
                change({ sealed: { ...draft.sealed, lossPct: v } }),
              )}
            </>,
          )}
          {group(
            'By fixed percentages',
            'the plain way that stands beside the estimate',
            <>
              {figure('A point of the index', '/fixed/perPoint', draft.fixed.perPoint, 'number', '%', (v) =>
                change({ fixed: { ...draft.fixed, perPoint: v } }),
              )}
              {figure('Its box', '/fixed/box', draft.fixed.box, 'number', '%', (v) =>
                change({ fixed: { ...draft.fixed, box: v } }),
              )}
              {figure('Papers', '/fixed/papers', draft.fixed.papers, 'number', '%', (v) =>
                change({ fixed: { ...draft.fixed, papers: v } }),
              )}
              {figure('An alteration', '/fixed/altered', draft.fixed.altered, 'number', '%', (v) =>
                change({ fixed: { ...draft.fixed, altered: v } }),
              )}
            </>,
          )}
        </div>
        <WorkedSale settings={draft} at={at} currency={money} />
      </div>
    </form>
  );
}

/** The first `channel-n` that is free. */
function freeId(taken: readonly string[]): string {
  for (let n = 1; ; n++) if (!taken.includes(`channel-${n}`)) return `channel-${n}`;
}
