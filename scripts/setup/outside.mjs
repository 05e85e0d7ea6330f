/** The simulated services outside, started once where several copies of the server share them. */
import { register } from 'tsx/esm/api';

/**
 * @param {string} folder where the marketplace keeps its listings
 * @returns {Promise<{ env: Record<string, string>, close(): Promise<void> }>}
 */
export async function startOutside(folder) {
  register();
  const { startMarketplace } = await import('@jutbank/standins/marketplace');
  const { startCarriers } = await import('@jutbank/standins/carriers');
  const { startRates } = await import('@jutbank/standins/rates');
  const marketplace = await startMarketplace(folder);
  const rates = await startRates();
  const carriers = await startCarriers();
  return {
    env: {
      JUTBANK_MARKETPLACE_URL: marketplace.url,
      JUTBANK_RATES_URL: rates.url,
      JUTBANK_CARRIERS_URL: carriers.url,
    },
    close: async () => {
      await marketplace.close();
      await rates.close();
      await carriers.close();
    },
  };
}
