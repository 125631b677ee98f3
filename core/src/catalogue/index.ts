export { catalogue, chipOf, partType } from './catalogue';
export { type ChipData, chips } from './chips';
export { type Family, type FamilyId, families, partNumber, readPartNumber } from './family';
export { gateTitle, isInverting, type PartKind, type PartType, type Pin, type PinRole, type Unit } from './part';
