/** People and bodies the shop deals with: noted, found, changed, forgotten. */
import { ulid } from 'ulid';
import VCard from 'vcard-creator';
import { contactRoutes, type Contact, type ContactBody } from '@jutbank/contract/contacts';
import { instant, type Queries } from '../db/index.ts';
import { answer, conflict, decodeCursor, checkVersion, notFound, pageOf, type Mount } from '../http/index.ts';
import { paperSettingsOf } from '../shop/index.ts';

interface ContactRow {
  id: string;
  version: number;
  name: string;
  address: string;
  email: string;
  phone: string;
  tax_number: string;
  note: string;
  consent_on: string | null;
  consent_to: string;
  erased_at: string | null;
  bought: number;
  consigned: number;
}
const SELECT = `SELECT c.*, (SELECT COUNT(*) FROM sale s WHERE s.contact_id = c.id) AS bought,
  (SELECT COUNT(*) FROM consignment g WHERE g.contact_id = c.id) AS consigned FROM contact c`;

const contactOf = (row: ContactRow): Contact => ({
  id: row.id,
  version: Number(row.version),
  name: row.name,
  address: row.address,
  email: row.email,
  phone: row.phone,
  taxNumber: row.tax_number,
  note: row.note,
  consentOn: row.consent_on,
  consentTo: row.consent_to,
  erasedAt: row.erased_at === null ? null : instant(row.erased_at),
  bought: Number(row.bought),
  consigned: Number(row.consigned),
});

async function contactById(db: Queries, id: string): Promise<Contact> {
  const row = await db.row<ContactRow>(`${SELECT} WHERE c.id = ?`, [id]);
  if (!row) throw notFound('contact');
  return contactOf(row);
}

/** @throws 422 beside the field where nobody is there under the id, or was and asked to be forgotten */
export async function knownContact(db: Queries, id: string): Promise<Contact> {
  const contact = await contactById(db, id);
  if (contact.erasedAt !== null) throw conflict('This contact asked to be forgotten.');
  return contact;
}

const columnsOf = (body: ContactBody) => [
  body.name,
  body.address,
  body.email,
  body.phone,
  body.taxNumber,
  body.note,
  body.consentOn,
  body.consentTo,
];

/** Names are kept whole: which of their words is the family’s nobody can tell. What is noted of somebody stays here. */
function cardOf({ id, name, address, email, phone }: ContactRow): string {
  const card = new VCard().addName({ familyName: name }).addCustomProperty({ name: 'UID', value: id });
  if (address !== '') card.addAddress({ street: address });
  if (email !== '') card.addEmail({ address: email });
  if (phone !== '') card.addPhoneNumber({ number: phone });
  return card.toString();
}

export function mountContacts(mount: Mount): void {
  const { database } = mount;
  const answered = (contact: Contact) => answer(contact, { etag: `"v${contact.version}"` });

  mount.handle(contactRoutes.listContacts, async ({ query }) => {
    const after = decodeCursor(query.cursor, 2) ?? ['', ''];
    const like = `%${(query.q ?? '').replace(/[%_\\]/g, '\\$&')}%`;
    const rows = await database.rows<ContactRow>(
      `${SELECT} WHERE c.erased_at IS NULL AND c.name LIKE ? AND (c.name, c.id) > (?, ?) ORDER BY c.name, c.id LIMIT ?`,
      [like, ...after, query.limit + 1],
    );
    const count = await database.row<{ n: number }>(
      'SELECT COUNT(*) AS n FROM contact WHERE erased_at IS NULL AND name LIKE ?',
      [like],
    );
    return answer(pageOf(rows, query.limit, Number(count?.n ?? 0), contactOf, (row) => [row.name, row.id]));
  });

  mount.handle(contactRoutes.exportContacts, async ({ response }) => {
    const rows = await database.rows<ContactRow>(`${SELECT} WHERE c.erased_at IS NULL ORDER BY c.name, c.id`);
    response
      .type('text/vcard')
      .setHeader('Content-Disposition', 'attachment; filename="contacts.vcf"')
      .send(rows.map((row) => cardOf(row)).join(''));
    return undefined;
  });

  mount.handleInTransaction(contactRoutes.addContact, async (tx, { body }) => {
    const id = ulid();
    await tx.run(
      'INSERT INTO contact (id, name, address, email, phone, tax_number, note, consent_on, consent_to) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
      [id, ...columnsOf(body)],
    );
    return answered(await contactById(tx, id));
  });

  mount.handleInTransaction(contactRoutes.putContact, async (tx, { params, body, ifMatch }) => {
    await tx.row('SELECT id FROM contact WHERE id = ? FOR UPDATE', [params.id]);
    const before = await knownContact(tx, params.id);
    checkVersion(ifMatch, before.version, 'this contact');
    await tx.run(
      'UPDATE contact SET version = version + 1, name = ?, address = ?, email = ?, phone = ?, tax_number = ?, note = ?, consent_on = ?, consent_to = ? WHERE id = ?',
      [...columnsOf(body), params.id],
    );
    return answered(await contactById(tx, params.id));
  });

  mount.handleInTransaction(contactRoutes.eraseContact, async (tx, { params }) => {
    await tx.row('SELECT id FROM contact WHERE id = ? FOR UPDATE', [params.id]);
    await contactById(tx, params.id);
    const owned = await tx.row<{ n: number }>(
      `SELECT COUNT(*) AS n FROM consignment g JOIN piece p ON p.id = g.piece_id WHERE g.contact_id = ? AND p.stage NOT IN ('sold', 'given-back')`,
      [params.id],
    );
    if (Number(owned?.n ?? 0) > 0)
      throw conflict('Pieces of theirs are still here to be sold: give them back or settle first.');
    const { settings } = await paperSettingsOf(tx);
    const kept = await tx.rows<{ invoice_number: string; until: string }>(
      `SELECT invoice_number, DATE(DATE_ADD(sold_at, INTERVAL ? YEAR)) AS until FROM sale
       WHERE contact_id = ? AND DATE_ADD(sold_at, INTERVAL ? YEAR) > UTC_TIMESTAMP(3) ORDER BY id`,
      [settings.keepBuyersYears, params.id, settings.keepBuyersYears],
    );
    await tx.run(
      `UPDATE sale SET buyer_name = 'forgotten on request', buyer_address = ''
       WHERE contact_id = ? AND DATE_ADD(sold_at, INTERVAL ? YEAR) <= UTC_TIMESTAMP(3)`,
      [params.id, settings.keepBuyersYears],
    );
    await tx.run(
      "UPDATE reservation SET name = 'forgotten on request', note = '', contact_id = NULL WHERE contact_id = ?",
      [params.id],
    );
    // what they would pay for what is theirs alone
    await tx.run('DELETE FROM series WHERE contact_id = ?', [params.id]);
    await tx.run(
      "UPDATE contact SET version = version + 1, name = 'forgotten on request', address = '', email = '', phone = '', tax_number = '', note = '', consent_on = NULL, consent_to = '', erased_at = UTC_TIMESTAMP(3) WHERE id = ?",
      [params.id],
    );
    return answer({
      erased: true,
      kept: kept.map((sale) => ({ invoiceNumber: sale.invoice_number, until: sale.until })),
    });
  });
}
