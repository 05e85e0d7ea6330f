export {
  type NetOfSale,
  type PublicCertificate,
  type SaleBody,
  type SaleRecord,
  saleBody,
  saleRoutes,
} from './sale.ts';
