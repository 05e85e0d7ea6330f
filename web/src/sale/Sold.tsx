/** A sale and what comes after it: what is still to be paid, sent, settled; what came back; its papers and its account. */
import { Button, ButtonBase } from '@mui/material';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { listingRoutes, POSTAGE_ZONES } from '@jutbank/contract/listing';
import { pieceRoutes } from '@jutbank/contract/pieces';
import { afterSaleRoutes, saleRoutes, type CreditBody, type SaleRecord } from '@jutbank/contract/sale';
import type { Route } from '@jutbank/contract/http';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { useMay } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import {
  AmountInput,
  DateInput,
  Submit,
  TextInput,
  Tick,
  useContractForm,
  type ContractForm,
} from '../parts/fields/index.ts';
import { Opening } from '../parts/Opening.tsx';
import { Roving } from '../parts/Roving.tsx';
import { dayText, moneyText, today, ZONE_WORDS } from '../parts/words.ts';
import { Account } from './Account.tsx';

export function Sold({ saleId }: { saleId: string }) {
  const sale = useAnswer(saleRoutes.sale, { params: { id: saleId } });
  if (sale.isPending) return <Loading />;
  if (sale.isError) return <Failed error={sale.error} retry={() => void sale.refetch()} />;
  const s = sale.data;
  return (
    <div className="twocol">
      <section>
        <h2 className="sec">
          {s.returnedOn === null ? 'Sold' : 'Sold, and came back'} <small>{dayText(s.soldAt)}</small>
        </h2>
        <p style={{ fontSize: 15, marginBottom: 12 }}>
          To <b>{s.buyerName ?? 'a buyer'}</b> for <span className="num">{moneyText(s.price)}</span>
          {s.total.amount !== s.price.amount && (
            <span className="soft">
              {' '}
              and postage, <span className="num">{moneyText(s.total)}</span> in all
            </span>
          )}
        </p>
        {s.compared && <Compared compared={s.compared} />}
        <Course sale={s} />
        <h2 className="sec">Papers</h2>
        <div className="acts">
          <PdfLink path={`/sales/${s.id}/invoice.pdf`}>Invoice {s.invoiceNumber}</PdfLink>
          <Button href={`/api/v1/sales/${s.id}/invoice.xml`}>Invoice as data</Button>
          <PdfLink path={`/sales/${s.id}/certificate.pdf`}>Certificate</PdfLink>
          <PdfLink path={`/sales/${s.id}/packing-slip.pdf`}>Packing slip</PdfLink>
          {s.credits.map((c) => (
            <PdfLink key={c.id} path={`/sales/${s.id}/credits/${c.id}/credit-note.pdf`}>
              Credit note {c.number}
            </PdfLink>
          ))}
          {s.settlement && (
            <PdfLink path={`/sales/${s.id}/settlement.pdf`}>Settlement {s.settlement.number}</PdfLink>
          )}
          <Button href={`/api/v1/certificates/${s.certificateCode}/certificate.json`}>
            Certificate as a file
          </Button>
          <Button component={Link} to={`/c/${s.certificateCode}`}>
            Public check page
          </Button>
        </div>
      </section>
      <Account sale={s} />
    </div>
  );
}

const PdfLink = ({ path, children }: { path: string; children: ReactNode }) => (
  <Button href={`/api/v1${path}`} target="_blank">
    {children}
  </Button>
);

function Compared({ compared }: { compared: NonNullable<SaleRecord['compared']> }) {
  const { worse, better, items, unchanged } = compared;
  const same = worse.length + better.length + items.length === 0;
  return (
    <div className={worse.length > 0 ? 'note bad' : 'note'} style={{ marginBottom: 14 }}>
      <b>{same ? 'It came back as it left, by what was found since.' : 'Against how it left'}</b>
      <ul>
        {worse.map((line) => (
          <li key={line}>– {line}</li>
        ))}
        {items.map((line) => (
          <li key={line}>– {line}</li>
        ))}
        {better.map((line) => (
          <li key={line} className="soft">
            – {line}
          </li>
        ))}
      </ul>
      <span className="soft">
        {unchanged} {unchanged === 1 ? 'finding' : 'findings'} unchanged.
      </span>
    </div>
  );
}

/** Each thing that a sale waits for, with the act that settles it. */
function Course({ sale: s }: { sale: SaleRecord }) {
  const mayWork = useMay('work');
  const maySell = useMay('appraise');
  const open = Number(s.open.amount);
  return (
    <ul className="course">
      <Step head="Paid" done={open === 0}>
        {open > 0 && (
          <>
            <span className="num">{moneyText(s.open)}</span> of{' '}
            <span className="num">{moneyText(s.total)}</span> is open
            {s.dueOn !== null && `, due ${dayText(s.dueOn)}`}
          </>
        )}
        {open < 0 && (
          <>
            <span className="num">{moneyText({ ...s.open, amount: s.open.amount.replace('-', '') })}</span> is
            to be paid back
          </>
        )}
        {open === 0 && (s.payments.length > 0 ? 'settled' : 'nothing is open')}
        {s.payments.length > 0 && (
          <span className="soft">
            {' '}
            ({s.payments.map((p) => `${moneyText(p.amount)} ${p.way}, ${dayText(p.paidOn)}`).join('; ')})
          </span>
        )}
        {mayWork && open !== 0 && (
          <Opening words="Note a payment" strong={s.returnedOn === null}>
            {(close) => <Pay sale={s} onDone={close} />}
          </Opening>
        )}
      </Step>
      <Step head="Sent" done={s.sent !== null}>
        {s.sent
          ? [s.sent.carrier, s.sent.tracking, dayText(s.sent.on)].filter((part) => part !== '').join(', ')
          : s.returnedOn === null
            ? 'not yet'
            : 'no more'}
        {mayWork && s.sent === null && s.returnedOn === null && (
          <div className="acts">
            <Opening words="Order a label of a carrier">
              {(close) => <OrderLabel sale={s} onDone={close} />}
            </Opening>
            <Opening words="It was sent otherwise">{(close) => <Send sale={s} onDone={close} />}</Opening>
          </div>
        )}
      </Step>
      {s.settlement && (
        <Step head="Owner" done={s.settlement.paidOn !== null}>
          {s.settlement.ownerName} gets{' '}
          <span className="num">
            {moneyText({ amount: s.settlement.payout, currency: s.price.currency })}
          </span>
          {s.returnedOn !== null
            ? ', were it not back'
            : s.settlement.paidOn === null
              ? ', not paid out yet'
              : `, paid out ${dayText(s.settlement.paidOn)}`}
          {maySell && s.settlement.paidOn === null && s.returnedOn === null && (
            <Opening words="It was paid out">{(close) => <Settle sale={s} onDone={close} />}</Opening>
          )}
        </Step>
      )}
      <Step head="Given back" done={s.returnedOn !== null}>
        {s.credits.length === 0 && 'nothing'}
        {s.credits.map((c) => (
          <span key={c.id} style={{ display: 'block' }}>
            <span className="num">{moneyText(c.refund)}</span> {dayText(c.on)}
            {c.pieceBack ? ', the piece came back' : ''}: {c.reason}
            {c.cameBack !== '' && <span className="soft"> With it: {c.cameBack}.</span>}
          </span>
        ))}
        {maySell && s.returnedOn === null && (
          <Opening words="Take it back, or give back a part">
            {(close) => <GiveBack sale={s} onDone={close} />}
          </Opening>
        )}
      </Step>
      <Step head="Certificate" done={s.withdrawn === null}>
        {s.withdrawn ? `withdrawn ${dayText(s.withdrawn.on)}: ${s.withdrawn.because}` : 'stands'}
        {maySell && !s.withdrawn && (
          <Opening words="Withdraw it">{(close) => <Withdraw sale={s} onDone={close} />}</Opening>
        )}
      </Step>
    </ul>
  );
}

const Step = ({ head, done, children }: { head: string; done: boolean; children: ReactNode }) => (
  <li>
    <span className="course-name">{head}</span>
    <span className={done ? 'done' : ''} style={{ gridColumn: '2 / -1' }}>
      {children}
    </span>
  </li>
);

interface StepProps {
  readonly sale: SaleRecord;
  readonly onDone: () => void;
}

/** A form about a sale: what it is answered with stands in the sale’s place at once. */
function useSaleForm<B, I extends Record<string, unknown>, T extends Record<string, unknown>>(
  route: Route<{ id: string }, unknown, B, SaleRecord, I>,
  { sale, onDone }: StepProps,
  empty: T,
  toBody: (values: T) => I,
): ContractForm<T, SaleRecord> {
  const answers = useKeptAnswers();
  return useContractForm(route, {
    params: { id: sale.id },
    empty,
    toBody,
    onSent: (fresh: SaleRecord) => {
      answers.set(saleRoutes.sale, { params: { id: sale.id } }, fresh);
      void answers.invalidate(saleRoutes.listSales, pieceRoutes.piece, pieceRoutes.tray);
      onDone();
    },
  });
}

function Pay(props: StepProps) {
  const form = useSaleForm(
    afterSaleRoutes.pay,
    props,
    { amount: props.sale.open.amount as string | null, paidOn: today() as string | null, way: '', note: '' },
    (v) => ({ ...v, amount: v.amount ?? '', paidOn: v.paidOn ?? '' }),
  );
  return (
    <form className="fields" noValidate onSubmit={form.onSubmit}>
      <div className="fields across">
        <AmountInput label="Amount" currency={props.sale.price.currency} {...form.field('amount')} />
        <DateInput label="On" {...form.field('paidOn')} />
        <TextInput label="How" {...form.field('way')} />
      </div>
      <Submit form={form} words="Note it" />
    </form>
  );
}

function Send(props: StepProps) {
  const form = useSaleForm(
    afterSaleRoutes.send,
    props,
    { on: today() as string | null, carrier: '', tracking: '' },
    (v) => ({ ...v, on: v.on ?? '' }),
  );
  return (
    <form className="fields" noValidate onSubmit={form.onSubmit}>
      <div className="fields across">
        <TextInput label="Carrier" {...form.field('carrier')} />
        <TextInput label="Tracking number" mono {...form.field('tracking')} />
        <DateInput label="On" {...form.field('on')} />
      </div>
      <Submit form={form} words="Note it" />
    </form>
  );
}

/** What the carriers ask; the one that is taken makes the label, and the parcel is sent with its number. */
function OrderLabel(props: StepProps) {
  const [zone, setZone] = useState<(typeof POSTAGE_ZONES)[number]>('home');
  const postage = useAnswer(listingRoutes.postage, { params: { id: props.sale.pieceId } });
  const form = useSaleForm(
    afterSaleRoutes.carriageLabel,
    props,
    { carrier: '', service: '', on: today() as string | null },
    (v) => ({ ...v, on: v.on ?? '' }),
  );
  if (postage.isPending) return <Loading />;
  if (postage.isError) return <Failed error={postage.error} retry={() => void postage.refetch()} />;
  const quotes = postage.data.zones.find((z) => z.zone === zone)?.quotes ?? [];
  const { carrier, service } = form.values;
  const taken = quotes.find((q) => q.carrier === carrier && q.service === service);
  return (
    <form className="fields" noValidate onSubmit={form.onSubmit}>
      <p className="soft">
        <span className="num">{postage.data.grams} g</span> packed
        {!postage.data.weighed && ', its own weight taken for granted'}, insured for{' '}
        <span className="num">{moneyText(postage.data.insuredFor)}</span>
      </p>
      <Roving className="chips" role="group" aria-label="Where it goes">
        {POSTAGE_ZONES.map((z) => (
          <ButtonBase key={z} className="chip" aria-pressed={z === zone} onClick={() => setZone(z)}>
            {ZONE_WORDS[z]}
          </ButtonBase>
        ))}
      </Roving>
      <Roving className="chips" role="group" aria-label="By which service">
        {quotes.map((q) => (
          <ButtonBase
            key={`${q.carrier} ${q.service}`}
            className="chip"
            aria-pressed={q === taken}
            onClick={() => {
              form.set('carrier', q.carrier);
              form.set('service', q.service);
            }}
          >
            {q.carrier}, {q.service.toLowerCase()}: {moneyText(q.price)}, {q.days.join('–')} days
            {q.tracked ? '' : ', not tracked'}
          </ButtonBase>
        ))}
      </Roving>
      {quotes.length === 0 && <p className="soft">No carrier takes it there.</p>}
      {taken && taken.topics.length > 0 && (
        <p className="soft">To look up before it goes: {taken.topics.join('; ')}.</p>
      )}
      <Submit form={form} words="Order the label" disabled={!taken} />
    </form>
  );
}

function Settle(props: StepProps) {
  const form = useSaleForm(
    afterSaleRoutes.settle,
    props,
    { paidOn: today() as string | null, way: '' },
    (v) => ({ ...v, paidOn: v.paidOn ?? '' }),
  );
  return (
    <form className="fields" noValidate onSubmit={form.onSubmit}>
      <div className="fields across">
        <DateInput label="On" {...form.field('paidOn')} />
        <TextInput label="How" {...form.field('way')} />
      </div>
      <Submit form={form} words="Note it" />
    </form>
  );
}

function Withdraw(props: StepProps) {
  const form = useSaleForm(afterSaleRoutes.withdraw, props, { because: '' }, (v) => v);
  return (
    <form className="fields" noValidate onSubmit={form.onSubmit}>
      <TextInput
        label="Why"
        why="It stands on the check page, for anybody to read"
        {...form.field('because')}
      />
      <Submit form={form} words="Withdraw the certificate" />
    </form>
  );
}

interface CreditForm extends Record<string, unknown> {
  pieceBack: boolean;
  on: string | null;
  reason: string;
  cameBack: string;
  refund: string | null;
  feesBack: string | null;
}

function GiveBack(props: StepProps) {
  const { sale } = props;
  const form = useSaleForm(
    afterSaleRoutes.credit,
    props,
    {
      pieceBack: true,
      on: today(),
      reason: '',
      cameBack: '',
      refund: sale.refundable.amount,
      feesBack: null,
    } as CreditForm,
    (v): CreditBody & Record<string, unknown> => ({
      pieceBack: v.pieceBack,
      on: v.on ?? '',
      reason: v.reason,
      cameBack: v.cameBack,
      refund: v.refund ?? '0',
      feesBack: v.feesBack ?? '0',
    }),
  );
  return (
    <form className="fields" noValidate onSubmit={form.onSubmit}>
      <Tick label="The piece itself is back in the shop" {...form.field('pieceBack')} />
      <TextInput label="Why" {...form.field('reason')} />
      {form.values.pieceBack && (
        <TextInput label="What came back with it" why="box, papers, packing" {...form.field('cameBack')} />
      )}
      <div className="fields across">
        <AmountInput label="Given back" currency={sale.price.currency} {...form.field('refund')} />
        <AmountInput
          label="The channel gives back"
          currency={sale.price.currency}
          {...form.field('feesBack')}
        />
        <DateInput label="On" {...form.field('on')} />
      </div>
      <Submit form={form} words={form.values.pieceBack ? 'Take it back' : 'Give it back'}>
        <span className="soft">
          {form.values.pieceBack
            ? 'A credit note is made, the certificate withdrawn, the piece inspected anew.'
            : 'A credit note is made; the sale stands.'}
        </span>
      </Submit>
    </form>
  );
}
