/** The constants of the identification model (engines.md); values are tuned on simulated worlds. */
import type { Effort, SwapClass } from '../reference/index.ts';
import type { Certainty, FoundPlace } from './observation.ts';

/** Part of every stored decision, so that an old answer can be told from a new one. */
export const ENGINE_VERSION = 'bench-4';

export interface BenchSettings {
  /** chance that a reading is wrong */
  readonly misreading: Readonly<Record<Certainty, number>>;
  /** chance that the right signs of a date code are read under another arrangement */
  readonly mistakenArrangement: number;
  /** chance that a part was exchanged */
  readonly exchange: Readonly<Record<SwapClass, number>>;
  /** counterfeits as a share of what they imitate and of themselves, by where they turn up */
  readonly counterfeits: Readonly<Record<FoundPlace, number>>;
  /** chance that a part is not the piece's own when its number differs from the blade's */
  readonly exchangedWhenNumbersDiffer: number;
  /** chance that a feature named by a stamp of re-work is no longer as it was made */
  readonly changedByRework: number;
  /** how many of a maker's pieces came back and bear one such stamp */
  readonly reworkedShare: number;
  /** frequency at a bench goes by this power of what is left */
  readonly quantityExponent: number;
  readonly unlistedPrior: number;
  /** of what is unlisted: relatives of a described variant, undescribed patterns of a known maker, anything */
  readonly unlistedKinds: { readonly relative: number; readonly pattern: number; readonly anything: number };
  /** chance that an undescribed relative differs in one feature */
  readonly relativeDiffers: number;
  /** how much of a donor part comes from the same maker */
  readonly donorSameMaker: number;
  /** pseudo-count by which a maker's own frequencies are mixed with everybody's */
  readonly backgroundMixing: number;
  /** P(absent) for a variant that does not record the feature */
  readonly absentWhenSilent: number;
  /** gauge noise by unit, one standard deviation */
  readonly instrument: Readonly<Record<'mm' | 'g' | 'deg', number>>;
  readonly defaultResolution: number;
  /** share of measures that are simply off, spread evenly over ±outlierRange of the size */
  readonly outlierShare: number;
  readonly outlierRange: number;
  /** share of worn examples, and the mean loss as a share of the size */
  readonly wornShare: number;
  readonly wearMean: number;
  /** reliability of a source that states none, or of a claim without a source */
  readonly sourceReliability: number;
  /** chance that a piece was put together from two, and by how much two must win over one to be told */
  readonly putTogetherPrior: number;
  readonly putTogetherDecibans: number;
  readonly tiers: {
    readonly confirmed: number;
    readonly probable: number;
    readonly twinsTogether: number;
    readonly doubt: number;
    readonly inPlay: number;
  };
}

export const BENCH_SETTINGS: BenchSettings = {
  misreading: { sure: 0.02, likely: 0.1, unsure: 0.3 },
  mistakenArrangement: 0.1,
  exchange: { never: 0.01, hard: 0.02, moderate: 0.08, easy: 0.2 },
  counterfeits: { 'specialist-dealer': 0.02, estate: 0.03, fair: 0.08, online: 0.15, unknown: 0.06 },
  exchangedWhenNumbersDiffer: 0.9,
  changedByRework: 0.9,
  reworkedShare: 0.05,
  quantityExponent: 0.6,
  unlistedPrior: 0.05,
  unlistedKinds: { relative: 0.5, pattern: 0.3, anything: 0.2 },
  relativeDiffers: 0.15,
  donorSameMaker: 0.8,
  backgroundMixing: 4,
  absentWhenSilent: 0.3,
  instrument: { mm: 0.08, g: 0.8, deg: 0.5 },
  defaultResolution: 0.1,
  outlierShare: 0.02,
  outlierRange: 0.25,
  wornShare: 0.5,
  wearMean: 0.025,
  sourceReliability: 0.8,
  putTogetherPrior: 0.02,
  putTogetherDecibans: 10,
  tiers: { confirmed: 0.95, probable: 0.8, twinsTogether: 0.8, doubt: 0.15, inPlay: 0.005 },
};

/** A feature that says nothing about its part's exchange or its effort. */
export const DEFAULT_SWAP: SwapClass = 'hard';
export const DEFAULT_EFFORT: Effort = 'glance';
/** Stamps stand in the tang, which is hardly ever exchanged. */
export const STAMP_SWAP: SwapClass = 'never';
