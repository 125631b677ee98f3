import { fixed } from '../base/numbers';

/** What a meter says of a level, as the bench tells it. */
export const levelWords = { '0': 'low', '1': 'high', '?': 'no level that can be relied on' } as const;

/** Volts as a meter shows them, to hundredths; never minus nothing. */
export const inVolts = (volts: number): string => fixed(Math.round(100 * volts) / 100 + 0, 2);
