/** One form of a series: the best of it, what is double and why, what is wanted, how hard it is to get. */
import { referenceRoutes } from '@jutbank/contract/reference';
import {
  seriesRoutes,
  type HeldPiece,
  type SeriesDetail,
  type SeriesSlotAnswer,
  type SlotWishBody,
} from '@jutbank/contract/series';
import { AVAILABILITIES, AVAILABILITY_WORDS, availabilityInWords } from '@jutbank/core/reference';
import { SLOT_WISHES } from '@jutbank/core/series';
import type { Ref } from 'react';
import { Link } from 'react-router';
import { useKeptAnswers } from '../base/answers.ts';
import { useSession } from '../base/session.ts';
import {
  chosen,
  DayInput,
  MoneyInput,
  NumberInput,
  optionsOf,
  Select,
  Submit,
  TextInput,
  useContractForm,
} from '../parts/fields/index.ts';
import { Opening } from '../parts/Opening.tsx';
import { counted, moneyText, sentence, today } from '../parts/words.ts';
import { pieces } from '../reference/ScarcityTable.tsx';
import { NoLongerNew } from '../reference/NoLongerNew.tsx';
import { rangeText, STATE_WORDS, whySellInWords } from './words.ts';

export function SlotPanel({
  ref,
  slot,
  of,
  onKept,
  mayWork,
}: {
  ref: Ref<HTMLElement>;
  slot: SeriesSlotAnswer;
  of: SeriesDetail;
  onKept: (next: SeriesDetail) => void;
  mayWork: boolean;
}) {
  const { best, doubles, sold, offers, price, rarity, availability } = slot;
  const hard = of.hardest.indexOf(slot.key);
  const [form] = slot.variants;
  return (
    <section ref={ref} className="slot-panel" aria-label={slot.name}>
      <h2 className="sec">
        {form !== undefined && slot.variants.length === 1 ? (
          <Link to={`/reference/variants/${form}`}>{slot.name}</Link>
        ) : (
          slot.name
        )}{' '}
        <small>{STATE_WORDS[slot.state]}</small>
      </h2>
      <table className="grid">
        <tbody>
          {best && (
            <tr>
              <td className="soft">The best here</td>
              <td>
                <Held piece={best} />
              </td>
            </tr>
          )}
          {doubles.map((double) => (
            <tr key={double.piece.id}>
              <td className="soft">To sell</td>
              <td>
                <Held piece={double.piece} />
                <div className="soft">{sentence(whySellInWords(double))}.</div>
              </td>
            </tr>
          ))}
          {offers.map((piece) => (
            <tr key={piece.id}>
              <td className="soft">In the shop for them</td>
              <td>
                <Held piece={piece} />
              </td>
            </tr>
          ))}
          {sold.map((piece) => (
            <tr key={piece.id}>
              <td className="soft">Sold</td>
              <td>
                <Held piece={piece} />
              </td>
            </tr>
          ))}
          <tr>
            <td className="soft">{best ? 'Would bring' : 'Would cost'}</td>
            <td className="num">
              {price ? (
                <>
                  {moneyText(price.likely, true)} <span className="soft">{rangeText(price)}</span>
                </>
              ) : (
                <span className="soft">no sale near it says</span>
              )}
            </td>
          </tr>
          <tr>
            <td className="soft">Seen sold</td>
            <td className="num">
              {rarity.seen.count === 0 ? 'never' : `${rarity.seen.count} in ${rarity.seen.years} years`}
            </td>
          </tr>
          {rarity.left && (
            <tr>
              <td className="soft">Still about</td>
              <td className="num">
                {pieces(rarity.left.low)} – {pieces(rarity.left.high)}
              </td>
            </tr>
          )}
          {hard >= 0 && (
            <tr>
              <td className="soft">Hard to get</td>
              <td className="num">
                {hard === 0
                  ? 'the hardest of what is missing'
                  : `${hard + 1} of the ${of.hardest.length} missing`}
              </td>
            </tr>
          )}
          <tr>
            <td className="soft">New</td>
            <td>
              {availability ? availabilityInWords(availability) : <span className="soft">nothing noted</span>}
            </td>
          </tr>
        </tbody>
      </table>
      <NoLongerNew variant={slot.variants.length === 1 ? form : undefined} />
      {mayWork && <WishForm slot={slot} of={of} onKept={onKept} />}
      {mayWork && form !== undefined && slot.variants.length === 1 && (
        <Opening words="Note whether it can be bought new">
          {(close) => <AvailabilityForm variant={form} onKept={close} />}
        </Opening>
      )}
    </section>
  );
}

function Held({ piece }: { piece: HeldPiece }) {
  return (
    <>
      <Link to={`/pieces/${piece.id}`}>
        <span className="num">{piece.stockNumber}</span> {piece.title}
      </Link>
      <div className="soft num">
        {[
          piece.grade ? sentence(piece.grade) : 'not inspected',
          piece.worth && `≈ ${moneyText(piece.worth, true)}`,
          piece.ask && `asks ${moneyText(piece.ask, true)}`,
          piece.sold ? undefined : `${counted(piece.days)} days here`,
        ]
          .filter(Boolean)
          .join(' · ')}
      </div>
    </>
  );
}

const WISH_WORDS: Readonly<Record<NonNullable<SlotWishBody['wish']>, string>> = {
  want: 'wanted',
  have: 'owned, not here',
  skip: 'not cared for',
};

function WishForm({
  slot,
  of,
  onKept,
}: {
  slot: SeriesSlotAnswer;
  of: SeriesDetail;
  onKept: (next: SeriesDetail) => void;
}) {
  const { shop } = useSession();
  const form = useContractForm(seriesRoutes.wishForSlot, {
    params: { id: of.id },
    version: of.version,
    empty: {
      key: slot.key,
      wish: slot.wish?.wish ?? null,
      // as much as it would cost, until somebody says otherwise
      atMost: slot.wish ? slot.wish.atMost : (slot.price?.likely ?? null),
      leastIndex: slot.wish?.leastIndex ?? of.upgradeBelow,
    },
    toBody: (values: SlotWishBody) =>
      values.wish === 'want' ? values : { ...values, atMost: null, leastIndex: null },
    onSent: onKept,
  });
  return (
    <form className="fields wish" noValidate onSubmit={form.onSubmit}>
      <Select
        label="What is said of it"
        none="nothing"
        options={optionsOf(SLOT_WISHES, (wish) => sentence(WISH_WORDS[wish]))}
        {...form.field('wish')}
      />
      {form.values.wish === 'want' && (
        <>
          <MoneyInput label="For at most" currency={shop.baseCurrency} {...form.field('atMost')} />
          <NumberInput label="In condition" why="index 0 to 100, at least" {...form.field('leastIndex')} />
        </>
      )}
      <Submit form={form} words="Keep it" />
    </form>
  );
}

function AvailabilityForm({ variant, onKept }: { variant: string; onKept: () => void }) {
  const answers = useKeptAnswers();
  const form = useContractForm(referenceRoutes.noteAvailability, {
    params: { id: variant },
    empty: { state: 'in-shops' as const, on: today(), source: '' },
    onSent: () => {
      void answers.invalidate(seriesRoutes.series, referenceRoutes.variant);
      onKept();
    },
  });
  return (
    <form className="fields" noValidate onSubmit={form.onSubmit}>
      <Select
        label="It is or was"
        options={optionsOf(AVAILABILITIES, (state) => sentence(AVAILABILITY_WORDS[state]))}
        {...chosen(form.field('state'))}
      />
      <DayInput label="On the day" {...form.field('on')} />
      <TextInput label="Where it was read or seen" {...form.field('source')} />
      <Submit form={form} words="Note it" />
    </form>
  );
}
