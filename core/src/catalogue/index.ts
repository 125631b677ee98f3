export { benchParts, clockHertz } from './bench-parts';
export {
  byName,
  catalogue,
  chipLibrary,
  chipOf,
  findChip,
  ownPartType,
  type PartName,
  partType,
  readDesign,
  sheetOfChip,
  typeOf,
} from './catalogue';
export { type ChipData, type ChipGroup, chips, type PulseTimer, type TimerDivider, type TimerPins } from './chips';
export {
  clearDelayOf,
  isClearOrPreset,
  plainPinName,
  timingRequirementsOf,
} from './chips/timing-requirements';
export { loadsOf } from './chips/unit-loads';
export { rarity } from './commonness';
export * from './datasheet';
export {
  type Family,
  type FamilyId,
  families,
  familyIds,
  otherPartOf,
  partNumber,
  readPartNumber,
  schmittLevels,
} from './family';
export { type FunctionTable, printedTableIn, printedTableOf } from './function-table';
export * from './inner';
export {
  type Drive,
  gateTitle,
  isInverting,
  type PartKind,
  type PartType,
  type Pin,
  type PinRole,
  sharesWire,
  type Unit,
} from './part';
export { E12, E24, valuesOf } from './preferred-values';
export { familyOf, oneShotLaw, type PulseLaw, timerPulse } from './pulse-law';
export { type PartEntry, partEntries, searchParts } from './search';
export { supplyMa } from './supply-current';
export { closingsOf, standsIn } from './units';
export { hasValue, readValue, shownValue } from './value';
