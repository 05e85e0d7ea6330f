/** What is to be done on a day, for the calendars people already look at. */
import ical from 'ical-generator';
import { todayIso } from '../clock/index.ts';
import type { Queries } from '../db/index.ts';

interface Due {
  /** of what it is due, the same whenever it is asked for */
  readonly key: string;
  readonly piece: string;
  readonly on: string;
  readonly says: string;
}

/** Nobody is named: a calendar lies on many devices. @param address of the shop, for links to the pieces */
export async function dueCalendar(db: Queries, shop: string, address: string): Promise<string> {
  const due = await db.rows<Due>(
    `SELECT CONCAT('reservation-', p.id) AS \`key\`, p.id AS piece, r.until_day AS \`on\`, CONCAT('A reservation ends: ', p.stock_number, ' ', p.title) AS says
       FROM reservation r JOIN piece p ON p.id = r.piece_id
     UNION ALL SELECT CONCAT('consignment-', p.id), p.id, g.until_day, CONCAT('A consignment ends: ', p.stock_number, ' ', p.title)
       FROM consignment g JOIN piece p ON p.id = g.piece_id WHERE g.until_day IS NOT NULL AND p.stage NOT IN ('sold', 'given-back')
     UNION ALL SELECT CONCAT('listing-', p.id), p.id, l.expires_on, CONCAT('A listing runs out: ', p.stock_number, ' ', p.title)
       FROM listing l JOIN piece p ON p.id = l.piece_id WHERE l.state = 'published' AND l.expires_on IS NOT NULL
     UNION ALL SELECT CONCAT('quarantine-', q.id), p.id, q.review_on, CONCAT('To be looked at again: ', p.stock_number, ' ', p.title)
       FROM quarantine q JOIN piece p ON p.id = q.piece_id WHERE q.ended_on IS NULL
     UNION ALL SELECT CONCAT('invoice-', s.id), p.id, s.due_on, CONCAT('Due: invoice ', s.invoice_number)
       FROM sale s JOIN piece p ON p.id = s.piece_id
       WHERE s.due_on IS NOT NULL AND s.due_on >= ? AND s.returned_on IS NULL
     ORDER BY 3, 1 LIMIT 2000`,
    [todayIso()],
  );
  const calendar = ical({ name: `${shop}: what is due`, prodId: { company: 'Jutbank', product: 'due' } });
  for (const { key, piece, on, says } of due)
    calendar.createEvent({
      id: `${key}@jutbank`,
      start: new Date(`${on}T00:00:00Z`),
      allDay: true,
      timezone: 'UTC',
      summary: says,
      url: `${address}/pieces/${piece}`,
    });
  return calendar.toString();
}
