/** The channels the shop sells through: a page each, what each keeps of a price. */
import { Button, Tab, Tabs } from '@mui/material';
import { useState } from 'react';
import { Select, TextInput } from '../parts/fields/index.ts';
import { Figure, type FigureOf, type SettingsProps } from './settingsFields.tsx';

const FIGURES = {
  commissionPct: ['Commission', '%', 'number'],
  commissionMin: ['Commission at least', '', 'amount'],
  commissionMax: ['Commission at most', '', 'amount'],
  fixedFee: ['Fixed fee', '', 'amount'],
  paymentPct: ['Payment', '%', 'number'],
  paymentFixed: ['Each payment', '', 'amount'],
  taxOnFeesPct: ['Tax on fees', '%', 'number'],
  postageCharged: ['Postage charged', '', 'amount'],
  postageCost: ['Postage costs', '', 'amount'],
  packing: ['Packing', '', 'amount'],
  insurancePct: ['Insurance', '% of the price', 'number'],
} satisfies Record<string, FigureOf>;
const KEYS = Object.keys(FIGURES) as (keyof typeof FIGURES)[];
const MOST_CHANNELS = 12;
const COMMISSION_ON = [
  { value: 'price', label: 'the price' },
  { value: 'price-and-postage', label: 'price and postage' },
] as const;

export function Channels({
  form,
  may,
  currency,
  at,
  onTurn,
}: SettingsProps & { at: number; onTurn: (to: number) => void }) {
  const { channels, usualChannel } = form.values;
  const inSight = channels[at] ?? channels[0];
  const [lookedAt, setLookedAt] = useState<readonly string[]>([]);
  const turn = (to: number) => {
    if (inSight) setLookedAt([...lookedAt, inSight.id]);
    onTurn(to);
  };
  const another = () => {
    form.set('channels', [...channels, { id: freeId(channels.map((c) => c.id)), name: '', channel: {} }]);
    turn(channels.length);
  };
  return (
    <section>
      <h2 className="sec">
        Channels <small>what each keeps of a price</small>
      </h2>
      <Tabs
        value={Math.min(at, channels.length - 1)}
        variant="scrollable"
        aria-label="Channels"
        onChange={(_, to: number) => (to < channels.length ? turn(to) : another())}
      >
        {channels.map((c) => (
          <Tab
            key={c.id}
            label={
              <span>
                {c.name === '' ? 'unnamed' : c.name}
                {c.id === usualChannel && <span className="soft"> usual</span>}
              </span>
            }
          />
        ))}
        {may && channels.length < MOST_CHANNELS && <Tab label="+ another" />}
      </Tabs>
      {/* what was looked at stays, out of sight too: what was typed into one is not lost by turning to another */}
      {channels.map(
        (c, i) =>
          (c === inSight || lookedAt.includes(c.id)) && (
            <div key={c.id} className="fields across" hidden={c !== inSight} style={{ marginTop: 12 }}>
              <TextInput label="Called" disabled={!may} {...form.field(`channels.${i}.name`)} />
              {KEYS.map((key) => (
                <Figure
                  key={key}
                  of={FIGURES[key]}
                  bound={form.field(`channels.${i}.channel.${key}`)}
                  may={may}
                  currency={currency}
                />
              ))}
              <Select
                label="Commission on"
                disabled={!may}
                options={COMMISSION_ON}
                {...form.field(`channels.${i}.channel.commissionOn`)}
                value={c.channel.commissionOn ?? 'price'}
              />
            </div>
          ),
      )}
      {may && inSight && inSight.id !== usualChannel && (
        <p style={{ marginTop: 8, display: 'flex', gap: 12 }}>
          <Button variant="text" onClick={() => form.set('usualChannel', inSight.id)}>
            Reckon with this one
          </Button>
          {channels.length > 1 && (
            <Button
              variant="text"
              onClick={() => {
                form.set(
                  'channels',
                  channels.filter((c) => c.id !== inSight.id),
                );
                onTurn(0);
              }}
            >
              Take it off the list
            </Button>
          )}
        </p>
      )}
    </section>
  );
}

/** The first `channel-n` that is free. */
function freeId(taken: readonly string[]): string {
  for (let n = 1; ; n++) if (!taken.includes(`channel-${n}`)) return `channel-${n}`;
}
