/** What the house's own record says of its ranges: read with every market, written when sales have said something new. */
import { VALUE_SETTINGS, type ValueSettings } from '@jutbank/core/market';
import type { HouseCalibration } from '@jutbank/core/worth';
import { raiseRevision, type Database, type Queries } from '../db/index.ts';

export async function houseRecord(db: Queries): Promise<HouseCalibration | undefined> {
  const row = await db.row<Record<'sold' | 'held' | 'stretch', number>>(
    'SELECT sold, held, stretch FROM house_record ORDER BY number DESC LIMIT 1',
  );
  return row && { of: Number(row.sold), held: Number(row.held), stretch: Number(row.stretch) };
}

export async function settingsInUse(db: Queries): Promise<ValueSettings> {
  return { ...VALUE_SETTINGS, houseStretch: (await houseRecord(db))?.stretch ?? 1 };
}

/** A change smaller than this is not worth pricing everything anew. */
const WORTH_SAYING = 0.01;

/** @returns whether it says something new */
export async function keepHouseRecord(database: Database, told: HouseCalibration): Promise<boolean> {
  return database.transaction(async (tx) => {
    // two copies of the server say it one after the other
    await tx.row("SELECT number FROM revision WHERE name = 'record' FOR UPDATE");
    const before = (await houseRecord(tx))?.stretch ?? 1;
    if (Math.abs(told.stretch - before) < WORTH_SAYING) return false;
    const number = await raiseRevision(tx, 'record');
    await tx.run('INSERT INTO house_record (number, sold, held, stretch) VALUES (?, ?, ?, ?)', [
      number,
      told.of,
      told.held,
      told.stretch,
    ]);
    return true;
  });
}
