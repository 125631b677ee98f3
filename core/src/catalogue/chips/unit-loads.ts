import type { FamilyId } from '../family';
import { plainPinName } from './timing-requirements';

/** Unit loads by the names of inputs, without the number of the unit; `*` is every input that is not named. */
type Loads = Readonly<Record<string, number>>;

const jk: Loads = { CLK: 2, CLRn: 2, PREn: 2 };
const loadable: Loads = { CLK: 2, ENT: 2 };

/** Standard TTL, in loads of 1.6 mA. Source: The TTL Data Book (Texas Instruments), IIL of each input. */
const standard: Readonly<Record<string, Loads>> = {
  SN7473: jk,
  '7474': { CLK: 2, CLRn: 2 },
  '7475': { C12: 4, C34: 4, D: 2 },
  SN7476: jk,
  '7485': { '*': 3, ILT: 1, IGT: 1 },
  '7490': { CKA: 2, CKB: 3 },
  '7492': { CKA: 2, CKB: 3 },
  '7493': { CKA: 2, CKB: 2 },
  SN74107: jk,
  '74109': { CLK: 2, PREn: 2, CLRn: 3 },
  '74121': { B: 2 },
  '74123': { CLRn: 2 },
  '74160': loadable,
  '74161': loadable,
  '74162': loadable,
  '74163': loadable,
  '74165': { LDn: 2 },
  '74181': { '*': 3, M: 1, S0: 4, S1: 4, S2: 4, S3: 4, CN: 5 },
  '74190': { ENn: 3 },
  '74191': { ENn: 3 },
  '7496': { PE: 5 },
  '74196': { CKA: 3, CKB: 4, CLRn: 2 },
  '74197': { CKA: 3, CKB: 2, CLRn: 2 },
};

const lowPowerJk: Loads = { CLK: 2, CLRn: 2, PREn: 2 };
const lowPowerLoadable: Loads = { CLK: 2, ENT: 2, LDn: 2 };
const adder: Loads = { '*': 2, C0: 1 };

/** Low-power Schottky, in loads of 0.4 mA. Source: as above. */
const lowPower: Readonly<Record<string, Loads>> = {
  '7473': lowPowerJk,
  '7474': { CLRn: 2, PREn: 2 },
  '7475': { C12: 4, C34: 4 },
  '7476': lowPowerJk,
  '7483': adder,
  '7485': { '*': 3, ILT: 1, IGT: 1 },
  '7486': { '*': 2 },
  '7490': { CKA: 6, CKB: 8 },
  '7492': { CKA: 6, CKB: 8 },
  '7493': { CKA: 6, CKB: 4 },
  '74107': lowPowerJk,
  '74109': { CLRn: 2, PREn: 2 },
  '74112': lowPowerJk,
  '74136': { '*': 2 },
  '74157': { S: 2, Gn: 2 },
  '74158': { S: 2, Gn: 2 },
  '74160': lowPowerLoadable,
  '74161': lowPowerLoadable,
  '74162': { ...lowPowerLoadable, CLRn: 2 },
  '74163': { ...lowPowerLoadable, CLRn: 2 },
  '74165': { LDn: 3 },
  '74181': { '*': 3, M: 1, S0: 4, S1: 4, S2: 4, S3: 4, CN: 5 },
  '74190': { ENn: 3 },
  '74191': { ENn: 3 },
  '74221': { B: 2, CLRn: 2 },
  '74240': { '*': 0.5 },
  '74241': { '*': 0.5 },
  '74244': { '*': 0.5 },
  '74245': { '*': 0.5 },
  '74283': adder,
  '74290': { CKA: 6, CKB: 8 },
  '74293': { CKA: 6, CKB: 4 },
  '74390': { CKA: 4, CKB: 6 },
  '74393': { CLK: 4 },
  '7496': { PE: 5 },
  '74113': { CLK: 2, PREn: 2 },
  '74196': { CKA: 6, CKB: 7, CLRn: 2 },
  '74197': { CKA: 6, CKB: 4, CLRn: 2 },
  '74375': { C12: 4, C34: 4 },
  '74490': { CLK: 4 },
  '74540': { '*': 0.5 },
  '74640': { '*': 0.5 },
  '74670': { REn: 3, WEn: 2 },
};

/**
 * How many unit loads of its family an input is: 1 unless the chip's data sheet gives another current when low. `pin` is the input's name;
 * CMOS inputs take no current that counts.
 */
export function loadsOf(base: string, family: FamilyId, pin: string): number {
  const chips = family === '74' ? standard : family === 'LS' ? lowPower : {};
  const loads = chips[base];
  return loads?.[plainPinName(pin)] ?? loads?.['*'] ?? 1;
}
