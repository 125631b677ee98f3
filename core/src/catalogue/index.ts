export { benchParts } from './bench-parts';
export { byName, catalogue, chipLibrary, chipOf, findChip, partType, sheetOfChip } from './catalogue';
export { type ChipData, type ChipGroup, chips, type PulseTimer } from './chips';
export { type Family, type FamilyId, families, familyIds, partNumber, readPartNumber } from './family';
export {
  type Drive,
  gateTitle,
  isInverting,
  type PartKind,
  type PartType,
  type Pin,
  type PinRole,
  type Unit,
} from './part';
