/** Whether forms can be bought new: notes of a day and a source, and what follows from them for today. */
import { ulid } from 'ulid';
import { availabilityOn, type AvailabilityNote, type AvailabilityOn } from '@jutbank/core/reference';
import { referenceRoutes, type VariantDetail } from '@jutbank/contract/reference';
import { todayIso } from '../clock/index.ts';
import { placeholders, rowsBy, type Queries } from '../db/index.ts';
import { answer, invalid, notFound, type Mount } from '../http/index.ts';
import type { Library } from './library.ts';

interface NoteRow extends AvailabilityNote {
  id: string;
  variant: string;
  notedBy: string;
}

const notesOf = (db: Queries, variants: readonly string[]): Promise<NoteRow[]> =>
  variants.length === 0
    ? Promise.resolve([])
    : db.rows<NoteRow>(
        `SELECT id, variant_id AS variant, state, on_day AS \`on\`, source, noted_by AS notedBy FROM availability_note
         WHERE variant_id IN (${placeholders(variants)}) ORDER BY on_day DESC, id DESC`,
        variants,
      );

/** All that was noted, by form: for whoever takes it along. */
export async function availabilityNotes(db: Queries): Promise<Record<string, AvailabilityNote[]>> {
  const rows = await db.rows<AvailabilityNote & { variant: string }>(
    'SELECT variant_id AS variant, state, on_day AS `on`, source FROM availability_note ORDER BY variant_id, on_day',
  );
  return Object.fromEntries(
    [...rowsBy(rows, (row) => row.variant)].map(([variant, notes]) => [
      variant,
      notes.map(({ state, on, source }) => ({ state, on, source })),
    ]),
  );
}

/** Of many forms what is so today; those of which nothing was noted are left out. */
export async function availabilityToday(
  db: Queries,
  variants: readonly string[],
): Promise<Map<string, AvailabilityOn>> {
  const today = todayIso();
  const notes = rowsBy(await notesOf(db, variants), (note) => note.variant);
  return new Map(
    [...notes].flatMap(([variant, of]) => {
      const now = availabilityOn(of, today);
      return now ? [[variant, now]] : [];
    }),
  );
}

export async function availabilityOf(db: Queries, variant: string): Promise<VariantDetail['availability']> {
  const notes = await notesOf(db, [variant]);
  return {
    notes: notes.map(({ id, state, on, source, notedBy }) => ({ id, state, on, source, notedBy })),
    gone: availabilityOn(notes, todayIso())?.gone ?? false,
  };
}

export function mountAvailability(mount: Mount, library: Library): void {
  mount.handlePrepared(
    referenceRoutes.noteAvailability,
    () => library.index(),
    async (tx, { params, body, person }, index) => {
      if (!index.variants.has(params.id)) throw notFound('variant');
      if (body.on > todayIso())
        throw invalid([
          { pointer: '/on', message: 'nobody can have seen that yet: write a day that has been' },
        ]);
      const id = ulid();
      await tx.run(
        'INSERT INTO availability_note (id, variant_id, state, on_day, source, noted_by) VALUES (?, ?, ?, ?, ?, ?)',
        [id, params.id, body.state, body.on, body.source, person.name],
      );
      return answer({ id, ...body, notedBy: person.name });
    },
  );
  mount.handleInTransaction(referenceRoutes.removeAvailability, async (tx, { params }) => {
    const gone = await tx.run('DELETE FROM availability_note WHERE id = ?', [params.id]);
    if (gone === 0) throw notFound('note');
    return answer({ removed: params.id });
  });
}
