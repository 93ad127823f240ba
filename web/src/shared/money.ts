import { digitsOf } from './format';
import { numberOf } from './ui/spelling';

/** Minor units as a plain amount to be typed over, such as 12.50. */
export const amountOf = (minor: number, currency: string) =>
  (minor / 10 ** digitsOf(currency)).toFixed(digitsOf(currency));

/** A typed amount in minor units; NaN where it is no number; read as every number is. */
export const minorOf = (text: string, currency: string) =>
  text.trim() === ''
    ? 0
    : Math.round(numberOf(text, digitsOf(currency)) * 10 ** digitsOf(currency));
