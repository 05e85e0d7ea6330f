/** The sale: accept an offer or sell over the counter; invoice, certificate and margin. */
import { pricingSettingsRoutes } from '@jutbank/contract/shop';
import { saleRoutes, type SaleRecord } from '@jutbank/contract/sale';
import { Button, ButtonBase } from '@mui/material';
import { Link, useSearchParams } from 'react-router';
import type { Money } from '@jutbank/core/money';
import { pieceRoutes, type PieceSheet } from '@jutbank/contract/pieces';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { useMay, useSession } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { MoneyInput } from '../parts/fields/figures.tsx';
import { Select, Tick } from '../parts/fields/choices.tsx';
import { Submit } from '../parts/fields/Submit.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { useContractForm } from '../parts/fields/useContractForm.ts';
import { useSheet } from '../pieces/useSheet.ts';
import { dayText, moneyText } from '../parts/words.ts';

export default function SaleStage() {
  const sheet = useSheet();
  return <div className="stage">{sheet.sale ? <Sold saleId={sheet.sale.id} /> : <Sell sheet={sheet} />}</div>;
}

function Sell({ sheet }: { sheet: PieceSheet }) {
  const may = useMay('appraise');
  const { shop } = useSession();
  const answers = useKeptAnswers();
  const [query] = useSearchParams();
  const offers = sheet.listing?.messages.filter((m) => m.kind === 'offer' && m.state === 'open') ?? [];
  const settings = useAnswer(pricingSettingsRoutes.settings);
  const channels = settings.data?.settings.channels ?? [];
  const asked = offers.find((o) => o.id === query.get('offer')) ?? offers[0];
  const empty: SaleForm = {
    message: asked?.id ?? null,
    price: sheet.pricing.ask,
    channel: null,
    buyerName: asked?.from ?? '',
    buyerAddress: '',
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
  if (!may) return <p className="soft">Not sold yet.</p>;
  return (
    <form className="fields" style={{ maxWidth: 640 }} noValidate onSubmit={form.onSubmit}>
      <h2 className="sec">Sell it</h2>
      {!sheet.attribution && (
        <div className="note bad">
          <b>Decide what it is first.</b>The certificate says what is sold.{' '}
          <Link to={`/pieces/${sheet.id}/bench`}>To the bench</Link>
        </div>
      )}
      {offers.length > 0 && (
        <div className="chips" role="group" aria-label="What is accepted">
          {offers.map((o) => (
            <ButtonBase key={o.id} className="chip" aria-pressed={o === offer} onClick={() => choose(o)}>
              Offer of {moneyText(o.amount)} from {o.from}
            </ButtonBase>
          ))}
          <ButtonBase className="chip" aria-pressed={!offer} onClick={() => choose(undefined)}>
            Over the counter
          </ButtonBase>
        </div>
      )}
      {!offer && (
        <div className="fields across">
          <MoneyInput label="Price" currency={shop.baseCurrency} {...form.field('price')} />
          <SoldThrough channels={channels} {...form.field('channel')} />
        </div>
      )}
      <TextInput label="Buyer" {...form.field('buyerName')} />
      <TextInput label="Address, for the invoice" rows={2} {...form.field('buyerAddress')} />
      <Tick
        label="The buyer’s age has been checked, and the rules of the place it goes to"
        {...form.field('ageChecked')}
      />
      <Submit
        form={form}
        words={offer ? `Accept ${moneyText(offer.amount)}` : 'Sell'}
        disabled={!sheet.attribution}
      >
        <span className="soft">A sale cannot be undone; its record stands.</span>
      </Submit>
    </form>
  );
}

/** What the form holds: every part of it is there, if only as nothing. */
interface SaleForm {
  message: string | null;
  price: Money | null;
  channel: string | null;
  buyerName: string;
  buyerAddress: string;
  ageChecked: boolean;
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

const NET_LINES = [
  ['gross', 'Paid by the buyer', 1],
  ['commission', 'Commission', -1],
  ['fixedFee', 'Fixed fee', -1],
  ['paymentFee', 'Payment', -1],
  ['taxOnFees', 'Tax on fees', -1],
  ['postageCost', 'Postage', -1],
  ['packing', 'Packing', -1],
  ['insurance', 'Insurance', -1],
  ['tax', 'Tax that the price held', -1],
] as const;

function Sold({ saleId }: { saleId: string }) {
  const sale = useAnswer(saleRoutes.sale, { params: { id: saleId } });
  if (sale.isPending) return <Loading />;
  if (sale.isError) return <Failed error={sale.error} retry={() => void sale.refetch()} />;
  const s = sale.data;
  return (
    <div className="twocol">
      <section>
        <h2 className="sec">
          Sold <small>{dayText(s.soldAt)}</small>
        </h2>
        <p style={{ fontSize: 15, marginBottom: 12 }}>
          To <b>{s.buyerName ?? 'a buyer'}</b> for <span className="num">{moneyText(s.price)}</span>
        </p>
        <div style={{ display: 'flex', gap: 8, flexWrap: 'wrap' }}>
          <Button href={`/api/v1/sales/${s.id}/invoice.pdf`} target="_blank" variant="contained">
            Invoice {s.invoiceNumber}
          </Button>
          <Button href={`/api/v1/sales/${s.id}/certificate.pdf`} target="_blank">
            Certificate
          </Button>
          <Button component={Link} to={`/c/${s.certificateCode}`}>
            Public check page
          </Button>
        </div>
      </section>
      <section>
        <h2 className="sec">What is left {s.net && <small>{s.net.channel}</small>}</h2>
        {s.net ? (
          <NetTable sale={s} net={s.net} />
        ) : (
          <p className="soft">The owner has not opened margins to readers.</p>
        )}
      </section>
    </div>
  );
}

function NetTable({ sale: s, net }: { sale: SaleRecord; net: NonNullable<SaleRecord['net']> }) {
  const amount = (text: string) => moneyText({ amount: text, currency: s.price.currency });
  return (
    <>
      <table className="grid">
        <tbody>
          {NET_LINES.filter(([key]) => key === 'gross' || Number(net[key]) !== 0).map(
            ([key, label, sign]) => (
              <tr key={key}>
                <td>{label}</td>
                <td className="r num">
                  {sign < 0 ? '− ' : ''}
                  {amount(net[key])}
                </td>
              </tr>
            ),
          )}
          <tr className="on">
            <td>
              <b>Left</b>
            </td>
            <td className="r num">
              <b>{amount(net.left)}</b>
            </td>
          </tr>
          <tr>
            <td>Cost</td>
            <td className="r num">{s.cost ? `− ${moneyText(s.cost)}` : 'not recorded'}</td>
          </tr>
          <tr className="on">
            <td>
              <b>Margin</b>
            </td>
            <td className="r num">
              <b>{s.margin ? moneyText(s.margin) : '–'}</b>
            </td>
          </tr>
        </tbody>
      </table>
      <p className="soft" style={{ fontSize: 12, marginTop: 8 }}>
        The realised price stands among the comparables now. Fees and tax are those the shop reckoned with on
        that day; what is owed is for its books and its tax adviser to say.
      </p>
    </>
  );
}
