/** Who had a piece when, as the record keeps it. */
import { z } from 'zod';
import { EVIDENCE_KINDS } from '@jutbank/core/provenance';
import { edtf, required, text } from '../http/index.ts';

export const custodyEvent = z.object({
  holder: required(200, 'Who had it?'),
  private: z.boolean().default(false),
  place: text(200).nullable().default(null),
  period: edtf,
  how: text(500).nullable().default(null),
  evidence: z.enum(EVIDENCE_KINDS),
  note: text(2000).nullable().default(null),
});
export const custodyBody = z.object({ events: z.array(custodyEvent).max(200) });
export type CustodyBody = z.infer<typeof custodyBody>;
