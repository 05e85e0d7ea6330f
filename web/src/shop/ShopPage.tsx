/** The shop: its settings, its people, what it goes by, and whether the ledger is whole. */
import { Button, MenuItem, TextField } from '@mui/material';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { ROLES, type Person, type Shop } from '@jutbank/contract/shop';
import type { LedgerCheck } from '@jutbank/contract/provenance';
import { ApiProblem, call, get } from '../app/api.ts';
import { SESSION, useMay, useSession } from '../app/session.ts';
import { sentence } from '../parts/words.ts';

export default function ShopPage() {
  return (
    <div className="page">
      <div className="pagehead">
        <h1>Shop</h1>
      </div>
      <div className="twocol">
        <section>
          <Settings />
          <Further />
          <Ledger />
        </section>
        <People />
      </div>
    </div>
  );
}

const asProblem = (error: unknown) => (error instanceof ApiProblem ? error : undefined);

function Settings() {
  const { shop } = useSession();
  const own = useMay('own');
  const queries = useQueryClient();
  const [name, setName] = useState(shop.name);
  const [stockScheme, setScheme] = useState(shop.stockScheme);
  const save = useMutation({
    mutationFn: () => call<Shop>('PUT', '/shop', { body: { name, stockScheme } }),
    onSuccess: () => queries.invalidateQueries({ queryKey: SESSION }),
  });
  const problem = asProblem(save.error);
  return (
    <form
      style={{ display: 'grid', gap: 14, marginBottom: 24 }}
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <h2 className="sec">
        Settings <small>books kept in {shop.baseCurrency}</small>
      </h2>
      <TextField
        label="Name of the shop"
        value={name}
        disabled={!own}
        onChange={(e) => setName(e.target.value)}
        error={!!problem?.at('/name')}
        helperText={problem?.at('/name')}
      />
      <TextField
        label="Stock numbers"
        value={stockScheme}
        disabled={!own}
        onChange={(e) => setScheme(e.target.value)}
        error={!!problem?.at('/stockScheme')}
        helperText={problem?.at('/stockScheme') ?? 'The zeros in braces are the running number.'}
        slotProps={{ htmlInput: { className: 'mono' } }}
      />
      {own && (
        <div>
          <Button type="submit" variant="contained" disabled={save.isPending}>
            Keep
          </Button>{' '}
          {save.isSuccess && <span className="soft">Kept.</span>}
        </div>
      )}
    </form>
  );
}

const FURTHER = [
  ['/track-record', 'How well we have done', 'what was said, against what came of it'],
  ['/reckoning', 'How we reckon', 'channels, tax, margins, what is wanted of a piece'],
  ['/rates', 'Exchange rates', 'the last known of each currency, daily or from a list'],
  ['/condition-rules', 'Condition rules', 'what each scale and the index go by'],
] as const;

function Further() {
  return (
    <section style={{ marginBottom: 24 }}>
      <h2 className="sec">What the shop goes by</h2>
      <table className="grid">
        <tbody>
          {FURTHER.map(([to, name, of]) => (
            <tr key={to}>
              <td>
                <Link to={to}>{name}</Link>
              </td>
              <td className="soft">{of}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Ledger() {
  const check = useQuery({
    queryKey: ['ledger-check'],
    queryFn: () => get<LedgerCheck>('/ledger/verify'),
    enabled: false,
  });
  return (
    <section>
      <h2 className="sec">Ledger</h2>
      <Button onClick={() => void check.refetch()} disabled={check.isFetching}>
        Walk the chain
      </Button>
      {check.data && (
        <p role="status" style={{ marginTop: 8 }} className={check.data.intact ? undefined : 'warn'}>
          {check.data.intact ? (
            <>
              All <span className="num">{check.data.entries}</span> entries follow from one another; nothing
              was rewritten.
            </>
          ) : (
            `The chain breaks at entry ${check.data.firstBroken ?? '?'}.`
          )}
        </p>
      )}
    </section>
  );
}

function People() {
  const own = useMay('own');
  const queries = useQueryClient();
  const people = useQuery({ queryKey: ['people'], queryFn: () => get<{ items: Person[] }>('/people') });
  const empty = { name: '', email: '', password: '', role: 'clerk' };
  const [form, setForm] = useState(empty);
  const add = useMutation({
    mutationFn: () => call<Person>('POST', '/people', { body: form }),
    onSuccess: () => {
      setForm(empty);
      void queries.invalidateQueries({ queryKey: ['people'] });
    },
  });
  const problem = asProblem(add.error);
  const field = (key: 'name' | 'email' | 'password', label: string, type = 'text') => (
    <TextField
      label={label}
      type={type}
      value={form[key]}
      autoComplete="off"
      error={!!problem?.at(`/${key}`)}
      helperText={problem?.at(`/${key}`)}
      onChange={(e) => setForm({ ...form, [key]: e.target.value })}
    />
  );
  return (
    <section>
      <h2 className="sec">People</h2>
      <table className="grid" style={{ marginBottom: 16 }}>
        <tbody>
          {people.data?.items.map((p) => (
            <tr key={p.id}>
              <td>{p.name}</td>
              <td className="soft">{sentence(p.role)}</td>
              <td className="soft mono" style={{ fontSize: 12, overflowWrap: 'anywhere' }}>
                {p.email}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {own && (
        <form
          className="askbox"
          noValidate
          onSubmit={(e) => {
            e.preventDefault();
            add.mutate();
          }}
        >
          <h2 className="sec">Give somebody an account</h2>
          <div style={{ display: 'grid', gap: 12 }}>
            {field('name', 'Name')}
            {field('email', 'E-mail', 'email')}
            {field('password', 'First password', 'password')}
            <TextField
              select
              label="Role"
              value={form.role}
              onChange={(e) => setForm({ ...form, role: e.target.value })}
            >
              {ROLES.map((r) => (
                <MenuItem key={r} value={r}>
                  {sentence(r)}
                </MenuItem>
              ))}
            </TextField>
            <div>
              <Button type="submit" variant="contained" disabled={add.isPending}>
                Add
              </Button>
            </div>
          </div>
        </form>
      )}
    </section>
  );
}
