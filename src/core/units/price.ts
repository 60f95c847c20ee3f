/** Prices in words. */

/** "12.40", "1,250.00": an amount in the money of the shop, which it knows. */
export const formatPrice = (amount: number): string =>
  amount.toLocaleString('en', { minimumFractionDigits: 2, maximumFractionDigits: 2 });
