/** Addresses of the application; a screen's code is loaded when it is first opened. */
import { createBrowserRouter, type RouteObject } from 'react-router';
import { Loading } from '../base/states.tsx';
import { RouteFailed } from './RouteFailed.tsx';
import { Shell } from './Shell.tsx';

const lazy = (
  load: () => Promise<{ default: React.ComponentType }>,
): Pick<RouteObject, 'lazy' | 'HydrateFallback'> => ({
  lazy: async () => ({ Component: (await load()).default }),
  HydrateFallback: Loading,
});

export const router = createBrowserRouter([
  { path: '/c/:code', errorElement: <RouteFailed />, ...lazy(() => import('../sale/CertificatePage.tsx')) },
  {
    path: '/',
    element: <Shell />,
    errorElement: <RouteFailed />,
    children: [
      {
        errorElement: <RouteFailed />,
        children: [
          { index: true, ...lazy(() => import('../pieces/TrayPage.tsx')) },
          { path: 'pieces/new', ...lazy(() => import('../intake/NewPiecePage.tsx')) },
          { path: 'pieces/from-list', ...lazy(() => import('../intake/StockListPage.tsx')) },
          {
            path: 'pieces/:id',
            ...lazy(() => import('../pieces/PiecePage.tsx')),
            children: [
              { index: true, ...lazy(() => import('../intake/IntakeStage.tsx')) },
              { path: 'intake', ...lazy(() => import('../intake/IntakeStage.tsx')) },
              { path: 'bench', ...lazy(() => import('../bench/BenchStage.tsx')) },
              { path: 'condition', ...lazy(() => import('../condition/ConditionStage.tsx')) },
              { path: 'worth', ...lazy(() => import('../worth/WorthStage.tsx')) },
              { path: 'appraise', ...lazy(() => import('../worth/AppraisePage.tsx')) },
              { path: 'trail', ...lazy(() => import('../provenance/TrailStage.tsx')) },
              { path: 'listing', ...lazy(() => import('../listing/ListingStage.tsx')) },
              { path: 'sale', ...lazy(() => import('../sale/SaleStage.tsx')) },
            ],
          },
          { path: 'series', ...lazy(() => import('../series/SeriesListPage.tsx')) },
          { path: 'series/:id', ...lazy(() => import('../series/SeriesPage.tsx')) },
          { path: 'backups', ...lazy(() => import('../archive/BackupsPage.tsx')) },
          { path: 'drills', ...lazy(() => import('../training/DrillsPage.tsx')) },
          { path: 'track-record', ...lazy(() => import('../worth/TrackRecordPage.tsx')) },
          { path: 'appraisals/:id', ...lazy(() => import('../worth/AppraisalPage.tsx')) },
          { path: 'reference', ...lazy(() => import('../reference/ReferencePage.tsx')) },
          { path: 'reference/patterns/:id', ...lazy(() => import('../reference/PatternPage.tsx')) },
          { path: 'reference/variants/:id', ...lazy(() => import('../reference/VariantPage.tsx')) },
          {
            path: 'reference/write/:section/:id?',
            ...lazy(() => import('../reference/writing/WritePage.tsx')),
          },
          { path: 'frequency', ...lazy(() => import('../bench/FrequencyPage.tsx')) },
          { path: 'questions', ...lazy(() => import('../bench/QuestionsPage.tsx')) },
          { path: 'condition-rules', ...lazy(() => import('../condition/RulesPage.tsx')) },
          { path: 'gradings', ...lazy(() => import('../condition/GradingsPage.tsx')) },
          { path: 'lots', ...lazy(() => import('../intake/LotsPage.tsx')) },
          { path: 'lots/:id', ...lazy(() => import('../intake/LotPage.tsx')) },
          { path: 'fair', ...lazy(() => import('../fair/FairPage.tsx')) },
          { path: 'comparables', ...lazy(() => import('../market/ComparablesPage.tsx')) },
          { path: 'pieces', ...lazy(() => import('../inventory/PiecesPage.tsx')) },
          { path: 'stock', ...lazy(() => import('../worth/StockPage.tsx')) },
          { path: 'pricing-settings', ...lazy(() => import('../shop/PricingSettingsPage.tsx')) },
          { path: 'rates', ...lazy(() => import('../market/RatesPage.tsx')) },
          { path: 'listing-desk', ...lazy(() => import('../listing/DeskPage.tsx')) },
          { path: 'sales', ...lazy(() => import('../sale/SalesPage.tsx')) },
          { path: 'sales/:id', ...lazy(() => import('../sale/SalePage.tsx')) },
          { path: 'bodies', ...lazy(() => import('../provenance/BodiesPage.tsx')) },
          { path: 'contacts', ...lazy(() => import('../contacts/ContactsPage.tsx')) },
          { path: 'listing-settings', ...lazy(() => import('../shop/ListingSettingsPage.tsx')) },
          { path: 'paper-settings', ...lazy(() => import('../shop/PaperSettingsPage.tsx')) },
          { path: 'shop', ...lazy(() => import('../shop/ShopPage.tsx')) },
          { path: 'account', ...lazy(() => import('../shop/AccountPage.tsx')) },
          { path: 'audit', ...lazy(() => import('../shop/AuditPage.tsx')) },
          { path: '*', ...lazy(() => import('./NotFoundPage.tsx')) },
        ],
      },
    ],
  },
]);
