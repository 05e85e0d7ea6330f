/** How the shop reckons: channels, tax, what it wants to keep, habits of buying; with a sale worked through beside it. */
import { pieceRoutes } from '@jutbank/contract/pieces';
import { pricingSettingsRoutes, type PricingSettings, type VersionedSettings } from '@jutbank/contract/shop';
import { Button } from '@mui/material';
import { useState } from 'react';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { useMay, useSession } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { FormProblem, useContractForm } from '../parts/fields/index.ts';
import { Channels } from './ChannelSettings.tsx';
import { Buying, Fixed, Sealed, Tax, Wanted } from './HabitSettings.tsx';
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
  const [at, setAt] = useState(() =>
    Math.max(
      0,
      seen.settings.channels.findIndex((c) => c.id === seen.settings.usualChannel),
    ),
  );
  const form = useContractForm(pricingSettingsRoutes.putSettings, {
    empty: seen.settings,
    version: seen.version,
    toBody: (settings: PricingSettings) => settings,
    onSent: (kept) => {
      onKept(kept.version);
      answers.set(pricingSettingsRoutes.settings, {}, kept);
      void answers.invalidateBelow(`${pieceRoutes.piece.path}/`);
    },
    // a channel whose field is wrong is brought into sight
    onHeld: (name) => {
      const wrong = /^channels\.(\d+)\./.exec(name)?.[1];
      if (wrong !== undefined) setAt(Number(wrong));
    },
  });
  const groups = { form, may, currency: shop.baseCurrency };
  const { refusal } = form;
  return (
    <form className="page" noValidate onSubmit={form.onSubmit}>
      <div className="pagehead">
        <PageTitle>Pricing settings</PageTitle>
        <span className="soft">Every ceiling, ask and net in the shop comes from these.</span>
        <span className="grow" />
        {may && form.changed && <span className="soft">not kept yet</span>}
        {justKept && !form.changed && <span className="soft">Kept.</span>}
        {may && (
          <Button type="submit" variant="contained" disabled={form.sending || !form.changed}>
            Keep
          </Button>
        )}
      </div>
      {refusal && (
        <p className="note bad" role="alert">
          {refusal.status === 412
            ? 'Somebody changed these meanwhile. What you typed is still here; reload the page to see theirs.'
            : refusal.errors.length > 0
              ? 'Not kept: see what stands in red.'
              : refusal.message}
        </p>
      )}
      <div className="pricing-settings">
        <div>
          <Channels {...groups} at={at} onTurn={setAt} />
          <Buying {...groups} />
          <Wanted {...groups} />
          <Tax {...groups} />
          <Sealed {...groups} />
          <Fixed {...groups} />
        </div>
        <WorkedSale settings={form.values} at={at} currency={shop.baseCurrency} />
      </div>
      {!refusal && <FormProblem form={form} />}
    </form>
  );
}
