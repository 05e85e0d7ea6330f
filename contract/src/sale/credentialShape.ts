/** The shape of a certificate’s file: a W3C Verifiable Credential 2.0 with a Data Integrity proof. */
import { z } from 'zod';
import { publicCertificate } from './sale.ts';

/** What the shop vouches for: the certificate as it was issued, without what is known of it only since. */
const subject = publicCertificate.omit({
  fingerprint: true,
  intact: true,
  withdrawn: true,
  signed: true,
  issuer: true,
  issuedAt: true,
});
export const credentialFile = z.object({
  '@context': z.array(z.unknown()).min(1),
  id: z.string(),
  type: z.array(z.string()).min(1),
  issuer: z.object({ id: z.string().regex(/^did:key:z/), name: z.string() }),
  validFrom: z.string(),
  credentialSubject: subject,
  proof: z.object({
    type: z.literal('DataIntegrityProof'),
    cryptosuite: z.literal('eddsa-jcs-2022'),
    created: z.string(),
    verificationMethod: z.string(),
    proofPurpose: z.literal('assertionMethod'),
    proofValue: z.string().regex(/^z/),
  }),
});
