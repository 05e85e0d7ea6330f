export {
  type FrequencyAnswer,
  type GaugeKey,
  type GaugeLine,
  type GaugeSummary,
  type PieceQuestion,
  type UnlistedValue,
  type WatchedNumber,
  benchRoutes,
  identifyQuestion,
} from './bench.ts';
