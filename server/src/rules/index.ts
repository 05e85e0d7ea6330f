/** The rule documents a shop grades by: what is shipped, with its own versions in their place. */
import {
  RULE_IDS,
  documentOf,
  SHIPPED_RULES,
  withDocument,
  type RuleDocument,
  type RuleId,
  type RuleSet,
} from '@jutbank/core/condition';
import type { RuleVersion } from '@jutbank/contract/condition';
import { instant, raiseRevision, revisionOf, type Queries, type Transaction } from '../db/index.ts';

export class RuleLibrary {
  #held: { revision: number; rules: RuleSet } | undefined;
  constructor(readonly database: Queries) {}

  /** The rules in use, remembered until somebody changes them. */
  async inUse(db: Queries = this.database): Promise<RuleSet> {
    const revision = await revisionOf(db, 'rules');
    if (this.#held?.revision !== revision) {
      const own = await db.rows<{ body: RuleDocument }>('SELECT body FROM rule_document WHERE in_use');
      this.#held = { revision, rules: own.reduce((set, { body }) => withDocument(set, body), SHIPPED_RULES) };
    }
    return this.#held.rules;
  }
}

const SHIPPED_VERSION: Omit<RuleVersion, 'version' | 'inUse'> = {
  note: 'As shipped',
  madeBy: null,
  madeAt: null,
};

/** Every version of a document, the shipped one first. */
export async function ruleVersions(db: Queries, id: RuleId): Promise<RuleVersion[]> {
  const rows = await db.rows<{
    version: string;
    note: string;
    made_by: string;
    made_at: string;
    in_use: number;
  }>('SELECT version, note, made_by, made_at, in_use FROM rule_document WHERE name = ? ORDER BY made_at', [
    id,
  ]);
  const shipped = documentOf(SHIPPED_RULES, id);
  return [
    {
      ...SHIPPED_VERSION,
      version: shipped?.version ?? '1',
      inUse: rows.every((row) => !row.in_use),
    },
    ...rows.map((row) => ({
      version: row.version,
      note: row.note,
      madeBy: row.made_by,
      madeAt: instant(row.made_at),
      inUse: Boolean(row.in_use),
    })),
  ];
}

export async function ruleDocument(
  db: Queries,
  id: RuleId,
  version: string | undefined,
): Promise<RuleDocument | undefined> {
  const shipped = documentOf(SHIPPED_RULES, id);
  if (version === shipped?.version) return shipped;
  const row = await db.row<{ body: RuleDocument }>(
    `SELECT body FROM rule_document WHERE name = ? AND ${version === undefined ? 'in_use' : 'version = ?'}`,
    version === undefined ? [id] : [id, version],
  );
  return row?.body ?? (version === undefined ? shipped : undefined);
}

/** Keeps a new version and grades by it from now on. Versions count up: `shop-1`, `shop-2`. */
export async function keepRules(
  tx: Transaction,
  document: RuleDocument,
  note: string,
  person: string,
): Promise<RuleDocument> {
  // writers stand in line, so that two cannot make the same version
  await tx.row("SELECT number FROM revision WHERE name = 'rules' FOR UPDATE");
  const count = await tx.row<{ n: number }>('SELECT COUNT(*) AS n FROM rule_document WHERE name = ?', [
    document.id,
  ]);
  const kept = { ...document, version: `shop-${Number(count?.n ?? 0) + 1}` };
  await tx.run('UPDATE rule_document SET in_use = FALSE WHERE name = ?', [document.id]);
  await tx.run(
    'INSERT INTO rule_document (name, version, body, note, made_by, in_use) VALUES (?, ?, ?, ?, ?, TRUE)',
    [kept.id, kept.version, JSON.stringify(kept), note, person],
  );
  await raiseRevision(tx, 'rules');
  return kept;
}

/** Grades by a version that is already there; the shipped one is used by leaving all others. */
export async function useRules(tx: Transaction, id: RuleId, version: string): Promise<void> {
  await tx.row("SELECT number FROM revision WHERE name = 'rules' FOR UPDATE");
  await tx.run('UPDATE rule_document SET in_use = (version = ?) WHERE name = ?', [version, id]);
  await raiseRevision(tx, 'rules');
}

export { RULE_IDS };
