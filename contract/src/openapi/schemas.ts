/** JSON Schemas of the files that other programs write for us or read from us; they stand in docs/schemas as well. */
import { z } from 'zod';
import { ruleDocument } from '../condition/index.ts';
import { linkedArtFile } from '../provenance/index.ts';
import { referencePack } from '../reference/index.ts';
import { credentialFile } from '../sale/index.ts';

type SchemaFile = 'reference-pack' | 'rule-document' | 'certificate' | 'linked-art';

/** Draft 2020-12. What is checked beyond a shape (a date, a currency) is said in words where it is wrong. */
export const schemaFiles = (): Record<SchemaFile, unknown> => {
  const of = (schema: z.ZodType) => z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' });
  return {
    'reference-pack': of(referencePack),
    'rule-document': of(ruleDocument),
    certificate: of(credentialFile),
    'linked-art': of(linkedArtFile),
  };
};
