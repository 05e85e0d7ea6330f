/** Accept an offer or sell over the counter. */
import { ButtonBase } from '@mui/material';
import { Link, useSearchParams } from 'react-router';
import { TAX_BASES, type Money, type SaleTax } from '@jutbank/core/money';
import { contactRoutes } from '@jutbank/contract/contacts';
import { listingRoutes } from '@jutbank/contract/listing';
import { pieceRoutes, type PieceSheet } from '@jutbank/contract/pieces';
import { saleRoutes } from '@jutbank/contract/sale';
import { pricingSettingsRoutes } from '@jutbank/contract/shop';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { useMay, useSession } from '../base/session.ts';
import { Roving } from '../parts/Roving.tsx';
import {
  MoneyInput,
  optionsOf,
  Select,
  Submit,
  SuggestInput,
  TextInput,
  Tick,
  useContractForm,
} from '../parts/fields/index.ts';
import { dayText, moneyText } from '../parts/words.ts';
import { SCHEME_WORDS } from './words.ts';

/** What the form holds: every part of it is there, if only as nothing. */
interface SaleForm {
  message: string | null;
  price: Money | null;
  channel: string | null;
  buyerName: string;
  buyerAddress: string;
  contact: string | null;
  taxScheme: SaleTax['on'] | null;
  paidBy: string | null;
  handedOver: boolean;
  despiteReservation: boolean;
  ageChecked: boolean;
}

export function Sell({ sheet }: { sheet: PieceSheet }) {
  const may = useMay('appraise');
  const { shop } = useSession();
  const answers = useKeptAnswers();
  const [query] = useSearchParams();
  const offers = sheet.listing?.messages.filter((m) => m.kind === 'offer' && m.state === 'open') ?? [];
  const settings = useAnswer(pricingSettingsRoutes.settings);
  const channels = settings.data?.settings.channels ?? [];
  // what is to be thought of goes by where it is sold: over the counter, or somewhere that it is posted from
  const draft = useAnswer(listingRoutes.draft, { params: { id: sheet.id } }).data;
  const contacts =
    useAnswer(contactRoutes.listContacts, { query: { limit: 200 } }, { enabled: may }).data?.items ?? [];
  const asked = offers.find((o) => o.id === query.get('offer')) ?? offers[0];
  const kept = sheet.reservation;
  const empty: SaleForm = {
    message: asked?.id ?? null,
    price: sheet.pricing.ask,
    channel: null,
    buyerName: asked?.from ?? kept?.reservedFor ?? '',
    buyerAddress: '',
    contact: null,
    taxScheme: null,
    paidBy: null,
    handedOver: false,
    despiteReservation: false,
    ageChecked: false,
  };
  const form = useContractForm(saleRoutes.sell, {
    params: { id: sheet.id },
    empty,
    // an offer brings its own price, through the channel it came by
    toBody: (values: SaleForm) =>
      values.message === null ? values : { ...values, price: null, channel: null },
    onSent: async () => {
      await answers.invalidate(pieceRoutes.piece);
      void answers.invalidateAll();
    },
  });
  const offer = offers.find((o) => o.id === form.values.message);
  const choose = (next: (typeof offers)[number] | undefined) => {
    form.set('message', next?.id ?? null);
    if (next) form.set('buyerName', next.from);
  };
  const buyer = form.field('buyerName');
  const named = (name: string) => {
    const known = contacts.find((c) => c.name === name);
    buyer.onChange(name);
    form.set('contact', known?.id ?? null);
    if (known && known.address !== '') form.set('buyerAddress', known.address);
  };
  const scheme = settings.data?.settings.tax.on ?? 'none';
  if (!may) return <p className="soft">Not sold yet.</p>;
  const atCounter = form.values.message === null && (form.values.channel ?? COUNTER) === COUNTER;
  const cautions = (atCounter ? draft?.cautionsAtCounter : draft?.cautions) ?? [];
  return (
    <form className="fields" noValidate onSubmit={form.onSubmit}>
      <h2 className="sec">Sell it</h2>
      {!sheet.attribution && (
        <div className="note bad">
          <b>Decide what it is first.</b>The certificate says what is sold.{' '}
          <Link to={`/pieces/${sheet.id}/bench`}>To the bench</Link>
        </div>
      )}
      {offers.length > 0 && (
        <Roving className="chips" role="group" aria-label="What is accepted">
          {offers.map((o) => (
            <ButtonBase key={o.id} className="chip" aria-pressed={o === offer} onClick={() => choose(o)}>
              Offer of {moneyText(o.amount)} from {o.from}
            </ButtonBase>
          ))}
          <ButtonBase className="chip" aria-pressed={!offer} onClick={() => choose(undefined)}>
            Over the counter
          </ButtonBase>
        </Roving>
      )}
      {!offer && (
        <div className="fields across">
          <MoneyInput label="Price" currency={shop.baseCurrency} {...form.field('price')} />
          <SoldThrough channels={channels} {...form.field('channel')} />
        </div>
      )}
      <SuggestInput label="Buyer" suggestions={contacts.map((c) => c.name)} {...buyer} onChange={named} />
      <TextInput label="Address, for the invoice" rows={2} {...form.field('buyerAddress')} />
      <div className="fields across">
        <TextInput
          label="Paid at once, by"
          why="Empty while it is still to be paid"
          {...form.field('paidBy')}
          value={form.values.paidBy ?? ''}
          onChange={(way) => form.set('paidBy', way === '' ? null : way)}
        />
        <Select
          label="Taxed"
          none={`as usual: ${SCHEME_WORDS[scheme]}`}
          options={optionsOf(TAX_BASES, (base) => SCHEME_WORDS[base])}
          {...form.field('taxScheme')}
        />
      </div>
      <Tick label="It is handed over here and need not be sent" {...form.field('handedOver')} />
      {kept && kept.reservedFor !== form.values.buyerName && (
        <Tick
          label={`Sell it although it is kept for ${kept.reservedFor ?? 'somebody'} until ${dayText(kept.until)}`}
          {...form.field('despiteReservation')}
        />
      )}
      {cautions.map((caution) => (
        <p key={caution} className="soft">
          {caution}
        </p>
      ))}
      <Tick
        label="The buyer’s age has been checked, and the rules of the place it goes to"
        {...form.field('ageChecked')}
      />
      <Submit
        form={form}
        words={offer ? `Accept ${moneyText(offer.amount)}` : 'Sell'}
        disabled={!sheet.attribution}
      >
        <span className="soft">
          Invoice and certificate are made with it; what comes back gets a credit note.
        </span>
      </Submit>
    </form>
  );
}

const COUNTER = 'counter';
function SoldThrough({
  channels,
  value,
  problem,
  onChange,
}: {
  channels: readonly { readonly id: string; readonly name: string }[];
  value: string | null;
  problem: string | undefined;
  onChange: (channel: string | null) => void;
}) {
  const known = channels.some((c) => c.id === COUNTER);
  return (
    <Select
      label="Sold through"
      value={value ?? (known ? COUNTER : null)}
      problem={problem}
      none={known ? undefined : 'Over the counter'}
      options={channels.map((c) => ({ value: c.id, label: c.name }))}
      onChange={onChange}
    />
  );
}
