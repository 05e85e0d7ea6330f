/** People and bodies the shop buys from and sells to: noted, changed, forgotten when they ask. */
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { contactRoutes, type Contact, type ContactBody, type Erasure } from '@jutbank/contract/contacts';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { send } from '../base/api.ts';
import { useMay } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { DateInput, Submit, TextInput, useContractForm } from '../parts/fields/index.ts';
import { Table, type Column } from '../parts/table/Table.tsx';
import { counted, dayText } from '../parts/words.ts';

const columnsWith = (open: (contact: Contact) => void): readonly Column<Contact>[] => [
  {
    id: 'name',
    head: 'Name',
    lead: true,
    cell: (c) => (
      <Button variant="text" className="quiet" onClick={() => open(c)}>
        {c.name}
      </Button>
    ),
    sortBy: (c) => c.name,
  },
  { id: 'place', head: 'Address', cell: (c) => c.address.replaceAll('\n', ', ') },
  { id: 'reach', head: 'Reached at', cell: (c) => [c.email, c.phone].filter((x) => x !== '').join(', ') },
  { id: 'bought', head: 'Bought', figure: true, cell: (c) => c.bought, sortBy: (c) => c.bought },
  {
    id: 'left',
    head: 'Left here to sell',
    figure: true,
    cell: (c) => c.consigned,
    sortBy: (c) => c.consigned,
  },
  {
    id: 'consent',
    head: 'May be written to',
    cell: (c) => (c.consentOn === null ? '' : `${c.consentTo || 'yes'}, since ${dayText(c.consentOn)}`),
  },
];

export default function ContactsPage() {
  const mayWork = useMay('work');
  const [q, setQ] = useState('');
  const [open, setOpen] = useState<Contact | 'new'>();
  const columns = useMemo(() => columnsWith(setOpen), []);
  const contacts = useAnswer(
    contactRoutes.listContacts,
    { query: { limit: 200, ...(q === '' ? {} : { q }) } },
    { placeholderData: (before) => before },
  );
  if (contacts.isPending) return <Loading />;
  if (contacts.isError) return <Failed error={contacts.error} retry={() => void contacts.refetch()} />;
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>Contacts</PageTitle>
        <span className="soft num">{counted(contacts.data.total)}</span>
        <span className="grow" />
        {mayWork && (
          <a className="quiet" href="/api/v1/contacts.vcf">
            As cards
          </a>
        )}
        {mayWork && (
          <Button variant="contained" onClick={() => setOpen('new')}>
            Note somebody
          </Button>
        )}
      </div>
      <div className={open === undefined ? '' : 'twocol'}>
        <section>
          <div style={{ maxWidth: 360, marginBottom: 12 }}>
            <TextInput label="Find by name" value={q} onChange={setQ} />
          </div>
          {contacts.data.items.length === 0 ? (
            <p className="soft">
              {q === ''
                ? 'Nobody is noted yet. Buyers, sellers and those whose pieces are sold here belong in this list.'
                : 'Nobody of that name.'}
            </p>
          ) : (
            <Table
              label="List of contacts"
              rows={contacts.data.items}
              columns={columns}
              keyOf={(c) => c.id}
              onOpen={setOpen}
            />
          )}
        </section>
        {open !== undefined && (
          <section>
            <ContactForm
              key={open === 'new' ? 'new' : `${open.id} ${open.version}`}
              of={open === 'new' ? undefined : open}
              onKept={setOpen}
              onGone={() => setOpen(undefined)}
            />
          </section>
        )}
      </div>
    </div>
  );
}

const NOBODY: ContactBody = {
  name: '',
  address: '',
  email: '',
  phone: '',
  taxNumber: '',
  note: '',
  consentOn: null,
  consentTo: '',
};

function ContactForm({
  of,
  onKept,
  onGone,
}: {
  of: Contact | undefined;
  onKept: (contact: Contact) => void;
  onGone: () => void;
}) {
  const own = useMay('own');
  const mayWork = useMay('work');
  const answers = useKeptAnswers();
  const kept = (contact: Contact) => {
    void answers.invalidate(contactRoutes.listContacts);
    onKept(contact);
  };
  const { name, address, email, phone, taxNumber, note, consentOn, consentTo } = of ?? NOBODY;
  const empty: ContactBody = { name, address, email, phone, taxNumber, note, consentOn, consentTo };
  const added = useContractForm(contactRoutes.addContact, {
    empty,
    toBody: (values: ContactBody) => values,
    onSent: kept,
  });
  const changed = useContractForm(contactRoutes.putContact, {
    empty,
    params: { id: of?.id ?? '' },
    version: of?.version ?? 0,
    toBody: (values: ContactBody) => values,
    onSent: kept,
  });
  const form = of ? changed : added;
  const forget = useMutation({
    mutationFn: () => send(contactRoutes.eraseContact, { params: { id: of?.id ?? '' } }),
    onSuccess: (told: Erasure) => {
      void answers.invalidate(contactRoutes.listContacts);
      if (told.kept.length === 0) onGone();
    },
  });
  return (
    <form className="fields" noValidate onSubmit={form.onSubmit}>
      <h2 className="sec">{of ? of.name : 'Somebody new'}</h2>
      <TextInput label="Name" disabled={!mayWork} {...form.field('name')} />
      <TextInput label="Address" rows={2} disabled={!mayWork} {...form.field('address')} />
      <div className="fields across">
        <TextInput label="E-mail" disabled={!mayWork} {...form.field('email')} />
        <TextInput label="Telephone" disabled={!mayWork} {...form.field('phone')} />
        <TextInput label="Tax number" disabled={!mayWork} {...form.field('taxNumber')} />
      </div>
      <TextInput label="Note" rows={2} disabled={!mayWork} {...form.field('note')} />
      <div className="fields across">
        <TextInput
          label="Agreed to be told of"
          why="Nobody is written to without it"
          disabled={!mayWork}
          {...form.field('consentTo')}
        />
        <DateInput label="Since" disabled={!mayWork} {...form.field('consentOn')} />
      </div>
      {mayWork && (
        <Submit form={form} words="Keep" said={() => 'Kept.'}>
          {of && own && (
            <Button
              variant="text"
              className="quiet"
              disabled={forget.isPending}
              onClick={() => forget.mutate()}
            >
              Forget them, as they asked
            </Button>
          )}
        </Submit>
      )}
      {forget.isError && (
        <p className="problem" role="alert">
          {forget.error.message}
        </p>
      )}
      {forget.data && forget.data.kept.length > 0 && (
        <p className="note" role="status">
          <b>Forgotten. Invoices keep the name as long as the law asks:</b>
          {forget.data.kept.map((k) => `${k.invoiceNumber} until ${dayText(k.until)}`).join(', ')}.
        </p>
      )}
    </form>
  );
}
