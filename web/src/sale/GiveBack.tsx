/** A piece goes back to whoever it came from, unsold: to the owner it was to be sold for, or to the seller of its lot. */
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import type { PieceSheet } from '@jutbank/contract/pieces';
import { afterSaleRoutes, type GiveBackBody } from '@jutbank/contract/sale';
import { send } from '../base/api.ts';
import { useMay, useSession } from '../base/session.ts';
import { DateInput, MoneyInput, Submit, TextInput, useContractForm } from '../parts/fields/index.ts';
import { dayText, moneyText, today } from '../parts/words.ts';
import { inLine, useTakeSheet } from '../pieces/usePiece.ts';

export function GiveBack({ sheet, onDone }: { sheet: PieceSheet; onDone: () => void }) {
  const { shop } = useSession();
  const takeSheet = useTakeSheet();
  const form = useContractForm(afterSaleRoutes.giveBack, {
    params: { id: sheet.id },
    version: sheet.version,
    empty: {
      on: today(),
      to: sheet.consignment?.ownerName ?? sheet.intake.sourceName,
      because: '',
      refund: null,
    } as GiveBackBody,
    toBody: (values: GiveBackBody) => values,
    onSent: (fresh) => {
      takeSheet(fresh);
      onDone();
    },
  });
  const on = form.field('on');
  return (
    <form className="fields" noValidate onSubmit={form.onSubmit}>
      <div className="fields across">
        <TextInput label="To whom" {...form.field('to')} />
        <DateInput label="On" {...on} onChange={(day, understood) => on.onChange(day ?? '', understood)} />
      </div>
      <TextInput label="Why" why="It stays in the ledger; to whom does not" {...form.field('because')} />
      {sheet.intake.price !== null && (
        <MoneyInput
          label="Comes back of its price"
          why="It counts to what its lot has brought back"
          currency={shop.baseCurrency}
          {...form.field('refund')}
        />
      )}
      <Submit form={form} words="Give it back" />
    </form>
  );
}

export function GivenBack({
  sheet,
  back,
}: {
  sheet: PieceSheet;
  back: NonNullable<PieceSheet['givenBack']>;
}) {
  const mayAppraise = useMay('appraise');
  const takeSheet = useTakeSheet();
  const undo = useMutation({
    mutationFn: () =>
      inLine(sheet.id, () =>
        send(afterSaleRoutes.takeBack, { params: { id: sheet.id }, version: sheet.version }),
      ),
    onSuccess: takeSheet,
  });
  return (
    <div className="note">
      <b>
        Given back{back.ownerName !== null && ` to ${back.ownerName}`},{' '}
        <span className="num">{dayText(back.on)}</span>
      </b>
      {back.because}
      {back.refundedCost && (
        <p>
          <span className="num">{moneyText(back.refundedCost)}</span> of its price came back.
        </p>
      )}
      {mayAppraise && (
        <div>
          <Button variant="text" className="quiet" disabled={undo.isPending} onClick={() => undo.mutate()}>
            It was not given back after all
          </Button>
        </div>
      )}
      {undo.isError && <p className="problem">{undo.error.message}</p>}
    </div>
  );
}
