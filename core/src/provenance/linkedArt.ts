/**
 * A piece as Linked Art JSON-LD (linked.art model 1.0): the object with its names, sizes, making and what is said of it,
 * every custody as a provenance activity, every document as a linguistic object. Private persons stand as
 * “private collection, town”, as in print.
 */
import { edtfInWords, isoOf, periodOf, type Day } from '../dates/index.ts';
import type { CustodyEvent } from './custody.ts';
import { evidenceInWords } from './trail.ts';

export interface ToExport {
  /** an address of the shop’s own, below which everything has its id */
  readonly base: string;
  readonly stockNumber: string;
  readonly title: string;
  readonly maker: string | undefined;
  /** EDTF */
  readonly made: string | undefined;
  /** in mm and g */
  readonly sizes: readonly {
    readonly label: string;
    readonly value: number;
    readonly unit: 'mm' | 'g' | 'degree';
  }[];
  readonly statements: readonly { readonly kind: string; readonly text: string }[];
  readonly custody: readonly CustodyEvent[];
  readonly documents: readonly {
    readonly id: string;
    readonly title: string;
    readonly kind: string;
    readonly fingerprint: string | null;
  }[];
}

/** Concepts of the Art & Architecture Thesaurus that Linked Art asks for. */
const AAT = {
  primaryName: 'http://vocab.getty.edu/aat/300404670',
  number: 'http://vocab.getty.edu/aat/300312355',
  description: 'http://vocab.getty.edu/aat/300435416',
  provenance: 'http://vocab.getty.edu/aat/300055863',
} as const;
const UNITS = {
  mm: ['http://vocab.getty.edu/aat/300379097', 'millimetres'],
  g: ['http://vocab.getty.edu/aat/300379225', 'grams'],
  degree: [undefined, 'degrees'],
} as const;

/** A unit by its concept, where the thesaurus has one that is known here. */
function unitOf(unit: keyof typeof UNITS) {
  const [id, label] = UNITS[unit];
  return { ...(id === undefined ? {} : { id }), type: 'MeasurementUnit', _label: label };
}

const type = (id: string, label: string) => ({ id, type: 'Type', _label: label });
const name = (content: string) => ({
  type: 'Name',
  content,
  classified_as: [type(AAT.primaryName, 'Primary Name')],
});

/** A period as a TimeSpan; open ends are left out. */
function timespan(edtf: string) {
  const { start, end } = periodOf(edtf);
  const instant = (day: Day, time: string) => (Number.isFinite(day) ? `${isoOf(day)}T${time}Z` : undefined);
  const [from, to] = [instant(start.earliest, '00:00:00'), instant(end.latest, '23:59:59')];
  return {
    type: 'TimeSpan',
    identified_by: [{ type: 'Name', content: edtfInWords(edtf) }],
    ...(from === undefined ? {} : { begin_of_the_begin: from }),
    ...(to === undefined ? {} : { end_of_the_end: to }),
  };
}

export function linkedArt(of: ToExport): Record<string, unknown> {
  const object = `${of.base}/object`;
  const who = (event: CustodyEvent) =>
    event.private ? ['Private collection', event.place].filter(Boolean).join(', ') : event.holder;
  const agent = (event: CustodyEvent, i: number) => ({
    id: `${of.base}/holder/${i + 1}`,
    type: event.private ? 'Person' : 'Actor',
    _label: who(event),
  });
  const graph = [
    {
      id: object,
      type: 'HumanMadeObject',
      _label: of.title,
      classified_as: [{ type: 'Type', _label: 'knife' }],
      identified_by: [
        name(of.title),
        { type: 'Identifier', content: of.stockNumber, classified_as: [type(AAT.number, 'Stock number')] },
      ],
      ...(of.made === undefined && of.maker === undefined
        ? {}
        : {
            produced_by: {
              id: `${of.base}/production`,
              type: 'Production',
              ...(of.made === undefined ? {} : { timespan: timespan(of.made) }),
              ...(of.maker === undefined
                ? {}
                : { carried_out_by: [{ id: `${of.base}/maker`, type: 'Group', _label: of.maker }] }),
            },
          }),
      ...(of.sizes.length === 0
        ? {}
        : {
            dimension: of.sizes.map((size) => ({
              type: 'Dimension',
              _label: size.label,
              value: size.value,
              unit: unitOf(size.unit),
            })),
          }),
      referred_to_by: of.statements.map((statement) => ({
        type: 'LinguisticObject',
        content: statement.text,
        classified_as: [type(AAT.description, statement.kind)],
      })),
      ...(of.documents.length === 0
        ? {}
        : {
            subject_of: of.documents.map((d) => ({
              id: `${of.base}/document/${d.id}`,
              type: 'LinguisticObject',
              _label: d.title,
            })),
          }),
    },
    ...of.custody.map((event, i) => {
      const before = of.custody[i - 1];
      return {
        id: `${of.base}/custody/${i + 1}`,
        type: 'Activity',
        _label: `${who(event)}, ${edtfInWords(event.period)}`,
        classified_as: [type(AAT.provenance, 'provenance')],
        timespan: timespan(event.period),
        ...(event.place && !event.private
          ? { took_place_at: [{ id: `${of.base}/place/${i + 1}`, type: 'Place', _label: event.place }] }
          : {}),
        part: [
          {
            type: 'TransferOfCustody',
            transferred_custody_of: [{ id: object, type: 'HumanMadeObject', _label: of.title }],
            transferred_custody_to: [agent(event, i)],
            ...(before ? { transferred_custody_from: [agent(before, i - 1)] } : {}),
            ...(event.how && !event.private ? { technique: [{ type: 'Type', _label: event.how }] } : {}),
          },
        ],
        referred_to_by: [
          {
            type: 'LinguisticObject',
            content: evidenceInWords(event.evidence),
            classified_as: [type(AAT.description, 'evidence')],
          },
        ],
      };
    }),
    ...of.documents.map((d) => ({
      id: `${of.base}/document/${d.id}`,
      type: 'LinguisticObject',
      _label: d.title,
      classified_as: [{ type: 'Type', _label: d.kind }],
      about: [{ id: object, type: 'HumanMadeObject', _label: of.title }],
      ...(d.fingerprint === null
        ? {}
        : { identified_by: [{ type: 'Identifier', content: `sha256:${d.fingerprint}` }] }),
    })),
  ];
  return { '@context': 'https://linked.art/ns/v1/linked-art.json', '@graph': graph };
}
