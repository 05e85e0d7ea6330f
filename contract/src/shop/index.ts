export { buyingSchema, channelSchema, targetSchema } from './channels.ts';
export {
  type PricingSettings,
  USUAL_SETTINGS,
  type VersionedSettings,
  care,
  pricingSettings,
  pricingSettingsRoutes,
} from './pricingSettings.ts';
export {
  accessOf,
  type Person,
  type PersonOnList,
  ROLES,
  type Role,
  type SearchHit,
  type SessionAnswer,
  type SessionOnList,
  type Shop,
  setupBody,
  shopRoutes,
} from './shop.ts';
export {
  type PaperSettings,
  listingStyleIn,
  USUAL_PAPERS,
  type VersionedPapers,
  paperSettings,
  paperSettingsRoutes,
} from './paperSettings.ts';
