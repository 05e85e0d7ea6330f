export {
  type CreditRecord,
  type NetOfSale,
  type PublicCertificate,
  SALE_STATES,
  type SaleBody,
  type SaleRecord,
  type SaleState,
  type SalesPage,
  saleBody,
  saleRoutes,
} from './sale.ts';
export { credentialFile } from './credentialShape.ts';
export {
  afterSaleRoutes,
  type ConsignmentBody,
  type GiveBackBody,
  type CreditBody,
  consignmentBody,
  type ReservationBody,
  reservationBody,
} from './afterSale.ts';
