import { type FamilyId, families, readPartNumber } from './family';

/**
 * The most that a low-power Schottky chip takes from its supply, in milliamperes, by base number: ICC of the data sheets
 * at 5.25 V, the larger of outputs high, low or off. Source: The TTL Data Book (Texas Instruments), SDLS series.
 */
const lowPowerSchottky: ReadonlyMap<string, number> = new Map(
  [
    '00 4.4, 02 5.4, 04 6.6, 08 8.8, 10 3.3, 11 6.6, 14 21, 20 2.2, 21 4.4, 27 6.8, 30 1.1, 32 9.8, 51 2.8, 86 10',
    '47 13, 74 8, 85 20, 90 15, 93 15, 112 6, 138 10, 139 11, 151 10, 153 10, 157 16, 160 32, 161 32, 162 32, 163 32',
    '164 27, 174 26, 175 18, 190 35, 191 35, 192 34, 193 34, 194 23, 240 50, 244 54, 245 95, 273 27, 280 27, 283 39',
    '13 7, 28 13.8, 40 6, 113 6, 145 13, 168 34, 169 34, 196 27, 197 27, 298 21, 352 10, 353 14, 375 12, 378 22, 379 15, 490 26',
    '91 20, 96 20, 540 52, 590 65, 597 50, 640 95, 670 50, 682 70, 688 65',
    '37 12, 132 14, 133 1.1, 260 5.5, 373 40, 374 40',
  ]
    .join(', ')
    .split(', ')
    .map((entry): [string, number] => [`74${entry.split(' ')[0]}`, Number(entry.split(' ')[1])]),
);

/** What a CMOS chip at rest takes at most, over its whole range of temperature: 80 µA for the larger ones. */
const CMOS_MA = 0.08;

/** The most that a chip at rest takes from its supply, in milliamperes; null where we have no figure. */
export function supplyMa(part: string, otherwise: FamilyId): number | null {
  const read = readPartNumber(part);
  const family = families[read?.family ?? otherwise];
  if (family.technology === 'CMOS') return CMOS_MA;
  return family.id === 'LS' ? (lowPowerSchottky.get(read?.base ?? part) ?? null) : null;
}
