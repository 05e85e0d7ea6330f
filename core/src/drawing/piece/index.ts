/** The drawn piece: recipes from what is recorded, drawings from recipes. */
export { drawStampOnTang } from './tang.ts';
export {
  cardView,
  commonFrame,
  differingParts,
  drawPiece,
  insetOf,
  VIEWS,
  viewsThatDiffer,
  viewThatDiffers,
  type Frame,
  type View,
} from './draw.ts';
export {
  anyPattern,
  decides,
  featuresOfPart,
  recipeOfPiece,
  recipeIn,
  recipeOfRecords,
  slotsOf,
  stampOf,
  type DrawnAs,
  type Records,
  type Seen,
} from './records.ts';
export { readStyles } from './readStyles.ts';
export {
  SIGN_FORMS,
  SIGN_PLACES,
  type BladeRecipe,
  type DrawingRecipe,
  type PartState,
  type SignPlace,
  type StampRecipe,
} from './recipe.ts';
export { DETAIL, type DrawnPart, type Drawing, type Ink, type Paint, type Shape } from './sheet.ts';
export { bladesThatDoNotFold } from './slipjoint.ts';
export { closeUp, type CloseUp } from './closeUp.ts';
export { drawAsFound } from './asFound.ts';
export { foundOn, partDrawnInWords, spokenName, spokenStamp } from './spoken.ts';
export {
  drawsOn,
  isSlot,
  SLOT_NAMES,
  SLOTS,
  stylesOf,
  USUAL,
  type BladeForm,
  type SlotName,
  type StyleOf,
  type Styles,
  type Texture,
} from './vocabulary.ts';
