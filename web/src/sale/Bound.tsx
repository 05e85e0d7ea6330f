/** What binds a piece that is not sold: kept for somebody, or sold for its owner. */
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { Link } from 'react-router';
import { contactRoutes } from '@jutbank/contract/contacts';
import type { PieceSheet } from '@jutbank/contract/pieces';
import { afterSaleRoutes, type ConsignmentBody, type ReservationBody } from '@jutbank/contract/sale';
import { useAnswer } from '../base/answers.ts';
import { send } from '../base/api.ts';
import { useMay, useSession } from '../base/session.ts';
import {
  AmountInput,
  chosen,
  DateInput,
  MoneyInput,
  NumberInput,
  Select,
  Submit,
  SuggestInput,
  TextInput,
  useContractForm,
} from '../parts/fields/index.ts';
import { Opening } from '../parts/Opening.tsx';
import { dayText, moneyText, today } from '../parts/words.ts';
import { GiveBack } from './GiveBack.tsx';
import { inLine, useTakeSheet } from '../pieces/usePiece.ts';

export function Bound({ sheet }: { sheet: PieceSheet }) {
  const mayWork = useMay('work');
  const mayAppraise = useMay('appraise');
  const takeSheet = useTakeSheet();
  const undo = useMutation({
    mutationFn: (route: typeof afterSaleRoutes.endReservation) =>
      inLine(sheet.id, () => send(route, { params: { id: sheet.id }, version: sheet.version })),
    onSuccess: takeSheet,
  });
  const { reservation: kept, consignment } = sheet;
  return (
    <section>
      <h2 className="sec">Kept for somebody</h2>
      {kept ? (
        <div className="note" style={{ marginBottom: 10 }}>
          <b>
            For {kept.reservedFor ?? 'somebody'} until <span className="num">{dayText(kept.until)}</span>
            {kept.until < today() && ', which is past'}
          </b>
          {kept.deposit && (
            <>
              Deposit of <span className="num">{moneyText(kept.deposit)}</span>
              {kept.paidOn && ` paid ${dayText(kept.paidOn)}`}
              {kept.way !== '' && `, ${kept.way}`}.{' '}
            </>
          )}
          {kept.reservationNote}
          {mayWork && (
            <div>
              <Button
                variant="text"
                className="quiet"
                onClick={() => undo.mutate(afterSaleRoutes.endReservation)}
              >
                Let it go
              </Button>
            </div>
          )}
        </div>
      ) : (
        mayWork && (
          <Opening words="Keep it for somebody">
            {(close) => <Reserve sheet={sheet} onDone={close} />}
          </Opening>
        )
      )}
      <h2 className="sec" style={{ marginTop: 20 }}>
        Whose it is
      </h2>
      {consignment ? (
        <div className="note" style={{ marginBottom: 10 }}>
          <b>{consignment.ownerName}’s; it is sold for them.</b>
          The shop keeps <span className="num">{consignment.terms.sharePct} %</span>
          {consignment.terms.least !== null && `, at least ${consignment.terms.least}`}
          {consignment.terms.fee !== null && `, and a fee of ${consignment.terms.fee}`}; the channel’s fees
          are {consignment.terms.channelFeesBy === 'shop' ? 'the shop’s' : 'the owner’s'}. Agreed{' '}
          <span className="num">{dayText(consignment.agreedOn)}</span>
          {consignment.until !== null && `, until ${dayText(consignment.until)}`}.
          {mayAppraise && (
            <div>
              <Button
                variant="text"
                className="quiet"
                onClick={() => undo.mutate(afterSaleRoutes.endConsignment)}
              >
                It is the shop’s own after all
              </Button>
            </div>
          )}
        </div>
      ) : (
        <>
          <p className="soft" style={{ marginBottom: 8 }}>
            The shop’s own.
          </p>
          {mayAppraise && sheet.intake.price === null && (
            <Opening words="It belongs to somebody else">
              {(close) => <Consign sheet={sheet} onDone={close} />}
            </Opening>
          )}
        </>
      )}
      {mayAppraise && (
        <div style={{ marginTop: 10 }}>
          <Opening words="Give it back unsold">
            {(close) => <GiveBack sheet={sheet} onDone={close} />}
          </Opening>
        </div>
      )}
      {undo.isError && (
        <p className="problem" role="alert">
          {undo.error.message}
        </p>
      )}
    </section>
  );
}

const NOT_RESERVED: ReservationBody = {
  name: '',
  contact: null,
  until: '',
  deposit: null,
  way: '',
  paidOn: null,
  note: '',
};

function Reserve({ sheet, onDone }: { sheet: PieceSheet; onDone: () => void }) {
  const { shop } = useSession();
  const takeSheet = useTakeSheet();
  const contacts = useAnswer(contactRoutes.listContacts, { query: { limit: 200 } }).data?.items ?? [];
  const form = useContractForm(afterSaleRoutes.reserve, {
    params: { id: sheet.id },
    version: sheet.version,
    empty: NOT_RESERVED,
    toBody: (values: ReservationBody) => ({
      ...values,
      contact: contacts.find((c) => c.name === values.name)?.id ?? null,
    }),
    onSent: (fresh) => {
      takeSheet(fresh);
      onDone();
    },
  });
  return (
    <form className="fields" noValidate onSubmit={form.onSubmit}>
      <SuggestInput label="For whom" suggestions={contacts.map((c) => c.name)} {...form.field('name')} />
      <DateInput
        label="Until"
        {...form.field('until')}
        onChange={(day, understood) => form.field('until').onChange(day ?? '', understood)}
      />
      <div className="fields across">
        <MoneyInput label="Deposit" currency={shop.baseCurrency} {...form.field('deposit')} />
        <TextInput label="Paid by" {...form.field('way')} />
        <DateInput label="Paid on" {...form.field('paidOn')} />
      </div>
      <TextInput label="Note" {...form.field('note')} />
      <Submit form={form} words="Keep it" />
    </form>
  );
}

const BEARERS = [
  { value: 'shop', label: 'the shop bears' },
  { value: 'owner', label: 'the owner bears' },
] as const;

function Consign({ sheet, onDone }: { sheet: PieceSheet; onDone: () => void }) {
  const { shop } = useSession();
  const takeSheet = useTakeSheet();
  const contacts = useAnswer(contactRoutes.listContacts, { query: { limit: 200 } }).data?.items ?? [];
  const form = useContractForm(afterSaleRoutes.consign, {
    params: { id: sheet.id },
    version: sheet.version,
    empty: {
      contact: '',
      agreedOn: today(),
      until: null,
      terms: { sharePct: 25, fee: null, least: null, channelFeesBy: 'shop' },
      note: '',
    },
    toBody: (values: ConsignmentBody) => values,
    onSent: (fresh) => {
      takeSheet(fresh);
      onDone();
    },
  });
  const share = form.field('terms.sharePct');
  return (
    <form className="fields" noValidate onSubmit={form.onSubmit}>
      <Select
        label="Whose it is"
        options={contacts.map((c) => ({ value: c.id, label: c.name }))}
        {...chosen(form.field('contact'))}
      />
      {contacts.length === 0 && (
        <p className="soft">
          Nobody is noted yet. <Link to="/contacts">Note them first</Link>
        </p>
      )}
      <div className="fields across">
        <NumberInput
          label="The shop keeps"
          unit="%"
          {...share}
          onChange={(pct, understood) => share.onChange(pct ?? 0, understood && pct !== null)}
        />
        <AmountInput label="At least" currency={shop.baseCurrency} {...form.field('terms.least')} />
        <AmountInput label="And a fee of" currency={shop.baseCurrency} {...form.field('terms.fee')} />
      </div>
      <Select label="Fees of the channel" options={BEARERS} {...chosen(form.field('terms.channelFeesBy'))} />
      <div className="fields across">
        <DateInput
          label="Agreed on"
          {...form.field('agreedOn')}
          onChange={(day, understood) => form.field('agreedOn').onChange(day ?? '', understood)}
        />
        <DateInput label="Until" {...form.field('until')} />
      </div>
      <Submit form={form} words="Take it on" />
    </form>
  );
}
