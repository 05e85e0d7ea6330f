export {
  type Contradiction,
  type Counts,
  type DrawnForm,
  type ImportAnswer,
  type Item,
  type ItemRecord,
  type MakerDetail,
  type PackReview,
  type PackSummary,
  type PatternDetail,
  type VariantDetail,
  type Vocabulary,
  itemSchema,
  referencePack,
  referenceRoutes,
} from './reference.ts';
export { constructionShape, featureReadingShape, impliedFeatureShape } from './shapes.ts';
