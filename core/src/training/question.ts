/** What a drill asks, with its choices, the one that is right, and why (engines.md, “Drills”). */
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import canonicalize from 'canonicalize';
import { random, type Random } from '../random/index.ts';
import type { Reads } from '../reference/index.ts';

export const DRILL_KINDS = [
  'stamp',
  'code',
  'number',
  'differ',
  'bracket',
  'belongs',
  'imitation',
  'grade',
  'price',
] as const;
export type DrillKind = (typeof DRILL_KINDS)[number];

/** What is drawn beside the question. */
export type DrillDrawing =
  | { readonly what: 'stamp'; readonly mark: string; readonly code?: string; readonly reads?: Reads }
  | { readonly what: 'forms'; readonly variants: readonly string[] };

export interface DrillQuestion {
  /** stays the same while the reference grows */
  readonly id: string;
  readonly kind: DrillKind;
  readonly maker: string | null;
  readonly ask: string;
  readonly drawn: DrillDrawing | null;
  /** in the order in which they are shown; each says something else */
  readonly choices: readonly string[];
  /** which of the choices is right */
  readonly right: number;
  readonly because: string;
  readonly source: { readonly title: string; readonly page: string | null } | null;
  /** where it can be read up: an address of the application */
  readonly opens: string;
  /** how often its subject is met, pieces: the commonest are learnt first */
  readonly commonness: number;
  /** changes with whatever the question says: what was learnt of an older one is learnt anew */
  readonly basis: string;
}

export const MOST_CHOICES = 4;
export const LEAST_CHOICES = 3;

export type Draft = Omit<DrillQuestion, 'choices' | 'right' | 'basis'> & {
  readonly answer: string;
  /** the classic mistakes first */
  readonly mistakes: readonly string[];
};

/** The same question always in the same order; none where too few mistakes can be told from what is right. */
export function questionOf({ answer, mistakes, ...draft }: Draft): DrillQuestion | undefined {
  const wrong = [...new Set(mistakes)].filter((text) => text !== answer).slice(0, MOST_CHOICES - 1);
  if (wrong.length + 1 < LEAST_CHOICES) return undefined;
  const choices = shuffled([answer, ...wrong], luckOf(draft.id));
  const said = { ...draft, choices, right: choices.indexOf(answer) };
  const { commonness: _, ...told } = said;
  return { ...said, basis: bytesToHex(sha256(utf8ToBytes(canonicalize(told) ?? ''))).slice(0, 16) };
}

/** Chance that hangs on words alone. */
export function luckOf(words: string): Random {
  const [a = 0, b = 0, c = 0, d = 0] = sha256(utf8ToBytes(words));
  return random((a << 24) | (b << 16) | (c << 8) | d);
}

export function shuffled<T>(list: readonly T[], luck: Random): T[] {
  const rest = [...list];
  return list.map(() => {
    const [taken] = rest.splice(luck.whole(0, rest.length - 1), 1);
    if (taken === undefined) throw new Error('nothing left to take');
    return taken;
  });
}
