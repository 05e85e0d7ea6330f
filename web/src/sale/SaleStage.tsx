/** The sale: accept an offer or sell over the counter; invoice, certificate and margin. */
import { pricingSettingsRoutes } from '@jutbank/contract/shop';
import { saleRoutes, type SaleRecord } from '@jutbank/contract/sale';
import { Button, Checkbox, FormControlLabel, MenuItem, TextField } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { pieceRoutes, type PieceSheet } from '@jutbank/contract/pieces';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useMay, useSession } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { MoneyField } from '../parts/MoneyField.tsx';
import { useSheet } from '../pieces/useSheet.ts';
import { dayText, moneyText } from '../parts/words.ts';
import '../parts/money.css';

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
  const [message, setMessage] = useState<string | null>(query.get('offer') ?? offers[0]?.id ?? null);
  const offer = offers.find((o) => o.id === message);
  const [price, setPrice] = useState(sheet.pricing.ask);
  const [buyerName, setBuyerName] = useState(offer?.from ?? '');
  const [buyerAddress, setBuyerAddress] = useState('');
  const [ageChecked, setAgeChecked] = useState(false);
  const [channel, setChannel] = useState<string | null>(null);
  const settings = useAnswer(pricingSettingsRoutes.settings);
  const channels = settings.data?.settings.channels ?? [];
  const sell = useMutation({
    mutationFn: () =>
      send(saleRoutes.sell, {
        params: { id: sheet.id },
        body: {
          message: offer ? offer.id : null,
          price: offer ? null : price,
          channel: offer ? null : channel,
          buyerName,
          buyerAddress,
          ageChecked,
        },
      }),
    onSuccess: async () => {
      await answers.invalidate(pieceRoutes.piece);
      void answers.invalidateAll();
    },
  });
  const problem = sell.error instanceof ApiProblem ? sell.error : undefined;
  if (!may) return <p className="soft">Not sold yet.</p>;
  return (
    <form
      style={{ maxWidth: 640, display: 'grid', gap: 14 }}
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        sell.mutate();
      }}
    >
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
            <button
              key={o.id}
              type="button"
              className="chip"
              aria-pressed={message === o.id}
              onClick={() => {
                setMessage(o.id);
                setBuyerName(o.from);
              }}
            >
              Offer of {moneyText(o.amount)} from {o.from}
            </button>
          ))}
          <button type="button" className="chip" aria-pressed={!offer} onClick={() => setMessage(null)}>
            Over the counter
          </button>
        </div>
      )}
      {!offer && (
        <div className="pairwise">
          <MoneyField
            label="Price"
            value={price}
            currency={shop.baseCurrency}
            problem={problem?.at('/price')}
            onChange={setPrice}
          />
          <TextField
            select
            label="Sold through"
            value={channel ?? (channels.some((c) => c.id === 'counter') ? 'counter' : '')}
            error={!!problem?.at('/channel')}
            helperText={problem?.at('/channel')}
            onChange={(e) => setChannel(e.target.value === '' ? null : e.target.value)}
          >
            {!channels.some((c) => c.id === 'counter') && <MenuItem value="">Over the counter</MenuItem>}
            {channels.map((c) => (
              <MenuItem key={c.id} value={c.id}>
                {c.name}
              </MenuItem>
            ))}
          </TextField>
        </div>
      )}
      <TextField
        label="Buyer"
        value={buyerName}
        onChange={(e) => setBuyerName(e.target.value)}
        error={!!problem?.at('/buyerName')}
        helperText={problem?.at('/buyerName')}
      />
      <TextField
        label="Address, for the invoice"
        value={buyerAddress}
        multiline
        minRows={2}
        onChange={(e) => setBuyerAddress(e.target.value)}
      />
      <div>
        <FormControlLabel
          control={<Checkbox checked={ageChecked} onChange={(e) => setAgeChecked(e.target.checked)} />}
          label="The buyer’s age has been checked, and the rules of the place it goes to"
        />
        {problem?.at('/ageChecked') && <p className="problem">{problem.at('/ageChecked')}</p>}
      </div>
      {problem && problem.errors.length === 0 && (
        <p className="problem" role="alert">
          {problem.message}
        </p>
      )}
      <div>
        <Button type="submit" variant="contained" disabled={sell.isPending || !sheet.attribution}>
          {offer ? `Accept ${moneyText(offer.amount)}` : 'Sell'}
        </Button>
        <span className="soft" style={{ marginLeft: 12 }}>
          A sale cannot be undone; its record stands.
        </span>
      </div>
    </form>
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
