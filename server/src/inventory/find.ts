/** Finding anything by whatever is known of it: pieces by name, number and what was recorded of them, papers, people, lots. */
import { searchReference } from '@jutbank/core/bench';
import { partInWords, findingInWords, type Finding } from '@jutbank/core/condition';
import type { ReferenceIndex } from '@jutbank/core/bench';
import type { SearchHit } from '@jutbank/contract/shop';
import type { Queries } from '../db/index.ts';
import { searchWords } from '../pieces/index.ts';

const MOST_PIECES = 8;
const MOST_OF_A_KIND = 5;
/** Shorter than this a word stands in too many notes to find one by. */
const LEAST_OF_A_NOTE = 4;
const NOTE_SHOWN = 120;

interface OfPiece {
  readonly id: string;
  readonly stock_number: string;
  readonly title: string;
}
/** A number as it was observed. */
interface Said {
  readonly number?: string;
  readonly text?: string;
  readonly part?: string;
}
/** Some rows of a kind. */
type Some = <T extends object>(sql: string, ...values: string[]) => Promise<T[]>;

/** @param people whether whoever asks may be told of buyers, sellers and owners */
export async function findEverything(
  db: Queries,
  index: ReferenceIndex,
  q: string,
  people: boolean,
): Promise<SearchHit[]> {
  const inside = `%${q.replace(/[%_\\]/g, '\\$&')}%`;
  const hit = (kind: SearchHit['kind'], id: string, label: string, hint: string): SearchHit => ({
    kind,
    id,
    label,
    hint,
  });
  const some: Some = (sql, ...values) => db.rows(`${sql} LIMIT ${MOST_OF_A_KIND}`, values);

  const words = searchWords(q);
  const byNumber = await db.rows<OfPiece>(
    'SELECT id, stock_number, title FROM piece WHERE stock_number LIKE ? ORDER BY id DESC LIMIT ?',
    // by any part of a number; letters alone only by how it begins, which an index knows
    [/\d/.test(q) ? inside : inside.slice(1), MOST_PIECES],
  );
  const byWords =
    words === ''
      ? []
      : await db.rows<OfPiece>(
          'SELECT id, stock_number, title FROM piece WHERE MATCH (title, stock_number, source_name, seller_statement) AGAINST (? IN BOOLEAN MODE) ORDER BY id DESC LIMIT ?',
          [words, MOST_PIECES],
        );
  const pieces = new Map([...byNumber, ...byWords].map((p) => [p.id, p]));

  const lots = await some<{ id: string; name: string; source_name: string }>(
    'SELECT id, name, source_name FROM lot WHERE name LIKE ? OR source_name LIKE ? ORDER BY id DESC',
    inside,
    inside,
  );
  const documents = await some<{ id: string; title: string; piece: string; stock_number: string }>(
    'SELECT d.id, d.title, p.id AS piece, p.stock_number FROM document d JOIN document_claim c ON c.document_id = d.id JOIN piece p ON p.id = c.piece_id WHERE d.title LIKE ? OR d.transcription LIKE ? GROUP BY d.id, p.id ORDER BY d.id DESC',
    inside,
    inside,
  );
  const invoices = await some<OfPiece & { invoice_number: string; buyer_name: string }>(
    `SELECT s.id, s.invoice_number, s.buyer_name, p.stock_number, p.title FROM sale s JOIN piece p ON p.id = s.piece_id WHERE s.invoice_number LIKE ? ${people ? 'OR s.buyer_name LIKE ?' : ''} ORDER BY s.id DESC`,
    ...(people ? [inside, inside] : [inside]),
  );
  const contacts = people
    ? await some<{ id: string; name: string; note: string }>(
        'SELECT id, name, note FROM contact WHERE erased_at IS NULL AND (name LIKE ? OR email LIKE ?) ORDER BY name',
        inside,
        inside,
      )
    : [];
  const noted = q.trim().length < LEAST_OF_A_NOTE ? [] : await notes(some, inside, words, people);

  return [
    ...[...pieces.values()].slice(0, MOST_PIECES).map((p) => hit('piece', p.id, p.title, p.stock_number)),
    ...invoices.map((s) =>
      hit(
        'sale',
        s.id,
        `Invoice ${s.invoice_number}`,
        people ? `${s.buyer_name}, ${s.stock_number}` : s.stock_number,
      ),
    ),
    ...contacts.map((c) => hit('contact', c.id, c.name, c.note)),
    ...lots.map((l) => hit('lot', l.id, l.name, l.source_name)),
    ...documents.map((d) => hit('document', d.piece, d.title, d.stock_number)),
    ...noted.map((n) => hit(n.kind, n.id, n.says, `${n.stock_number} ${n.title}`)),
    ...searchReference(index, q),
  ];
}

interface Noted extends OfPiece {
  readonly kind: 'finding' | 'note' | 'treatment' | 'question' | 'number';
  readonly says: string;
}

/** What was written of pieces: findings by their words, treatments, open questions, numbers by how they begin. */
async function notes(some: Some, inside: string, words: string, people: boolean): Promise<Noted[]> {
  const of = 'p.id, p.stock_number, p.title';
  const findings =
    words === ''
      ? []
      : await some<Finding & OfPiece>(
          `SELECT ${of}, f.part, f.defect, f.severity, f.note FROM finding f JOIN piece p ON p.id = f.piece_id WHERE MATCH (f.note) AGAINST (? IN BOOLEAN MODE) ORDER BY p.id DESC`,
          words,
        );
  // the shop's own words may name whoever is not to be named
  const own =
    words === '' || !people
      ? []
      : await some<Noted>(
          `SELECT ${of}, 'note' AS kind, LEFT(p.shop_note, ${NOTE_SHOWN}) AS says FROM piece p WHERE MATCH (p.shop_note) AGAINST (? IN BOOLEAN MODE) ORDER BY p.id DESC`,
          words,
        );
  const treatments = await some<Noted>(
    `SELECT ${of}, 'treatment' AS kind, CONCAT_WS(', ', NULLIF(t.title, ''), NULLIF(t.product, ''), t.reason) AS says FROM treatment t JOIN piece p ON p.id = t.piece_id WHERE t.title LIKE ? OR t.product LIKE ? OR t.reason LIKE ? ORDER BY p.id DESC`,
    inside,
    inside,
    inside,
  );
  const questions = await some<Noted>(
    `SELECT ${of}, 'question' AS kind, q.asked AS says FROM piece_question q JOIN piece p ON p.id = q.piece_id WHERE q.asked LIKE ? ORDER BY p.id DESC`,
    inside,
  );
  const numbers = await some<OfPiece & { readonly says: Said }>(
    `SELECT ${of}, o.body AS says FROM observation o JOIN piece p ON p.id = o.piece_id WHERE o.said LIKE ? ORDER BY p.id DESC`,
    inside.slice(1),
  );
  return [
    ...findings.map((f) => ({ ...f, kind: 'finding' as const, says: findingInWords(f) })),
    ...own,
    ...treatments,
    ...questions,
    ...numbers.map((n) => ({
      ...n,
      kind: 'number' as const,
      says: `${n.says.number ?? n.says.text ?? ''}${n.says.part === undefined ? '' : `, ${partInWords(n.says.part)}`}`,
    })),
  ];
}
