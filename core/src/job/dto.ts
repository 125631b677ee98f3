import 'reflect-metadata';
import { plainToInstance, Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayNotEmpty,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
  type ValidationError,
  validateSync,
} from 'class-validator';

import {
  BREADBOARD_ID,
  type BreadboardKind,
  breadboardKinds,
  HOLE_NAME,
  type JumperColour,
  jumperColours,
  MAX_CORNERS,
} from '../board';
import { type FamilyId, familyIds } from '../catalogue';
import { MAX_OWN_TEXT } from '../design';
import type { Proof, Strategy, UnitPart } from '../packing';
import { MAX_JOB_NAME, PLAIN_TEXT, SILENCED_LETTERS } from './job';
import {
  MOST_NUMBER_BITS,
  MOST_NUMBERS,
  MOST_ORDERED,
  MOST_TRACED,
  type NumberForm,
  numberForms,
  TRACE_LETTERS,
} from './trace-setup';
import { FILE_VERSION } from './write';

/** Shapes of a job file of the current version, as docs/job-file.md writes them down. */

const REF = /^[A-Z]{1,2}[1-9]\d{0,3}$/;
const NET_LENGTH = 120;

/** Unlike class-validator's IsOptional, which lets null pass. */
const MayBeAbsent = (): PropertyDecorator => ValidateIf((_, value) => value !== undefined);

/** A name or label: nothing in it that cannot be seen. */
const Plain = (each = false): PropertyDecorator =>
  Matches(PLAIN_TEXT, { each, message: 'it must not hold control characters' });

class BreadboardDto {
  @Matches(BREADBOARD_ID, { message: 'it must be b1, bs2, bh3r or the like' })
  id!: string;

  @IsIn(breadboardKinds)
  type!: BreadboardKind;
}

class PartLabelDto {
  @Matches(/^\w{1,4}$/, { message: 'it must be the name of a contact or lamp, such as 3 or a' })
  of!: string;

  @IsString()
  @Length(1, NET_LENGTH)
  @Plain()
  signal!: string;
}

class SeatedPartDto {
  @Matches(REF, { message: 'it must be a reference such as U1' })
  ref!: string;

  @IsString()
  @Length(1, 40)
  part!: string;

  @Matches(HOLE_NAME, { message: 'it must be a hole such as b1.e17 or b1.top+12' })
  at!: string;

  @IsIn([0, 90, 180, 270])
  rotation!: 0 | 90 | 180 | 270;

  @MayBeAbsent()
  @IsString()
  @Length(1, NET_LENGTH)
  @Plain()
  signal?: string;

  @MayBeAbsent()
  @IsArray()
  @ArrayMaxSize(10)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => PartLabelDto)
  labels?: PartLabelDto[];

  @MayBeAbsent()
  @IsNumber({ allowNaN: false, allowInfinity: false })
  @Min(0)
  @Max(1e12)
  value?: number;

  @MayBeAbsent()
  @IsInt()
  @Min(1)
  @Max(20)
  span?: number;

  @MayBeAbsent()
  @IsInt()
  @Min(1)
  @Max(10_000)
  limit?: number;

  @MayBeAbsent()
  @IsIn([true])
  fixed?: true;

  @MayBeAbsent()
  @IsString()
  @Length(1, MAX_OWN_TEXT)
  own?: string;
}

class CornerDto {
  @IsNumber()
  @Min(-10)
  @Max(2000)
  x!: number;

  @IsNumber()
  @Min(-10)
  @Max(2000)
  y!: number;
}

class JumperDto {
  @Matches(/^w[1-9]\d{0,5}$/, { message: 'it must be w and a number' })
  id!: string;

  @Matches(HOLE_NAME, { message: 'it must be a hole such as b1.e17 or b1.top+12' })
  from!: string;

  @Matches(HOLE_NAME, { message: 'it must be a hole such as b1.e17 or b1.top+12' })
  to!: string;

  @MayBeAbsent()
  @IsIn(jumperColours)
  colour?: JumperColour;

  @MayBeAbsent()
  @IsIn(['straight'])
  route?: 'straight';

  @MayBeAbsent()
  @IsArray()
  @ArrayNotEmpty()
  @ArrayMaxSize(MAX_CORNERS)
  @ValidateNested({ each: true })
  @Type(() => CornerDto)
  corners?: CornerDto[];
}

class NoteDto {
  @Matches(/^n[1-9]\d{0,3}$/, { message: 'it must be n and a number' })
  id!: string;

  @Matches(HOLE_NAME, { message: 'it must be a hole such as b1.e17 or b1.top+12' })
  at!: string;

  @IsString()
  @Length(1, 400)
  text!: string;
}

class BoardDto {
  @IsArray()
  @ArrayMaxSize(40)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => BreadboardDto)
  breadboards!: BreadboardDto[];

  @IsArray()
  @ArrayMaxSize(5000)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => SeatedPartDto)
  parts!: SeatedPartDto[];

  @IsArray()
  @ArrayMaxSize(20_000)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => JumperDto)
  jumpers!: JumperDto[];

  @MayBeAbsent()
  @IsArray()
  @ArrayMaxSize(200)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => NoteDto)
  notes?: NoteDto[];
}

class UnitUseDto {
  /** The unit's number in its package, from 1. */
  @Min(1)
  @Max(64)
  unit!: number;

  @IsString()
  @Length(1, NET_LENGTH)
  @Plain()
  gate!: string;

  @IsIn(['whole', 'piece', 'inverter', 'block'])
  part!: UnitPart;

  @IsArray()
  @ArrayMaxSize(64)
  @IsString({ each: true })
  @MaxLength(NET_LENGTH, { each: true })
  @Plain(true)
  inputs!: string[];

  @IsString()
  @Length(1, NET_LENGTH)
  @Plain()
  output!: string;

  @MayBeAbsent()
  @IsArray()
  @ArrayMaxSize(64)
  @IsString({ each: true })
  @Length(1, NET_LENGTH, { each: true })
  @Plain(true)
  others?: string[];
}

class PackageDto {
  @Matches(REF, { message: 'it must be a reference such as U1' })
  ref!: string;

  @IsString()
  @Length(1, 40)
  part!: string;

  @MayBeAbsent()
  @IsString()
  @Length(1, MAX_OWN_TEXT)
  own?: string;

  @IsArray()
  @ArrayMaxSize(64)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => UnitUseDto)
  units!: UnitUseDto[];
}

class OutputDto {
  @IsString()
  @Length(1, NET_LENGTH)
  @Plain()
  name!: string;

  @IsString()
  @Length(1, NET_LENGTH)
  @Plain()
  net!: string;
}

class PackingDto {
  @IsArray()
  @ArrayMaxSize(5000)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => PackageDto)
  packages!: PackageDto[];

  @IsArray()
  @ArrayMaxSize(5000)
  @IsString({ each: true })
  @MaxLength(NET_LENGTH, { each: true })
  @Plain(true)
  inputs!: string[];

  @IsArray()
  @ArrayMaxSize(5000)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => OutputDto)
  outputs!: OutputDto[];

  @IsBoolean()
  proved!: boolean;

  @Matches(/^[0-9a-f]{14}$/, { message: 'it must be fourteen hexadecimal digits' })
  design!: string;

  @MayBeAbsent()
  @IsIn(['own', 'written', 'fewest', 'blocks', 'kinds', 'jumpers', 'shortest', 'nand', 'nor', 'drawer'])
  strategy?: Strategy;

  @MayBeAbsent()
  @IsIn(['all', 'gates', 'tried', 'best'])
  proof?: Proof;

  @MayBeAbsent()
  @IsInt()
  @Min(0)
  @Max(5000)
  bound?: number;
}

class OwnColumnDto {
  @IsString()
  @Length(1, NET_LENGTH)
  @Plain()
  name!: string;

  @Matches(/^[01.-]{1,256}$/, { message: 'it must be 0, 1, - or . for each row' })
  marks!: string;
}

class OwnTableDto {
  @IsArray()
  @ArrayMaxSize(8)
  @IsString({ each: true })
  @Length(1, NET_LENGTH, { each: true })
  @Plain(true)
  inputs!: string[];

  @IsArray()
  @ArrayMaxSize(64)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => OwnColumnDto)
  outputs!: OwnColumnDto[];
}

class PinnedGateDto {
  @IsString()
  @Length(1, NET_LENGTH)
  @Plain()
  net!: string;

  @Matches(REF, { message: 'it must be a reference such as U1' })
  ref!: string;

  @IsString()
  @Length(1, 40)
  part!: string;

  /** The unit's number in its package, from 1. */
  @IsInt()
  @Min(1)
  @Max(64)
  unit!: number;

  @IsArray()
  @ArrayMaxSize(64)
  @IsString({ each: true })
  @MaxLength(NET_LENGTH, { each: true })
  @Plain(true)
  inputs!: string[];
}

class AddedDto {
  @Matches(REF, { message: 'it must be a reference such as U1' })
  ref!: string;

  @IsString()
  @Length(1, 40)
  part!: string;
}

class SilencedDto {
  @IsString()
  @Length(1, SILENCED_LETTERS.code)
  code!: string;

  @IsString()
  @MaxLength(SILENCED_LETTERS.place)
  place!: string;

  @IsString()
  @Length(1, SILENCED_LETTERS.reason)
  reason!: string;
}

class LocksDto {
  @IsArray()
  @ArrayMaxSize(5000)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => PinnedGateDto)
  pins!: PinnedGateDto[];

  @IsArray()
  @ArrayMaxSize(100)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => AddedDto)
  added!: AddedDto[];
}

class TraceNumberDto {
  @IsString()
  @Length(1, TRACE_LETTERS.row)
  @Plain()
  name!: string;

  @IsArray()
  @ArrayMinSize(2)
  @ArrayMaxSize(MOST_NUMBER_BITS)
  @IsString({ each: true })
  @Length(1, TRACE_LETTERS.pin, { each: true })
  of!: string[];

  @IsIn([...numberForms])
  form!: NumberForm;
}

/** The latest moment that a mark stands at: time is counted for ten days. */
const MOST_MARK_NS = 10 * 86_400e9;

class TraceMarksDto {
  @ValidateIf((_, value) => value !== null)
  @IsNumber()
  @Min(0)
  @Max(MOST_MARK_NS)
  a!: number | null;

  @ValidateIf((_, value) => value !== null)
  @IsNumber()
  @Min(0)
  @Max(MOST_MARK_NS)
  b!: number | null;
}

class TraceDto {
  @IsArray()
  @ArrayMaxSize(MOST_TRACED)
  @IsString({ each: true })
  @Length(1, TRACE_LETTERS.pin, { each: true })
  pins!: string[];

  @IsArray()
  @ArrayMaxSize(MOST_ORDERED)
  @IsString({ each: true })
  @Length(1, TRACE_LETTERS.row, { each: true })
  order!: string[];

  @IsArray()
  @ArrayMaxSize(MOST_NUMBERS)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => TraceNumberDto)
  numbers!: TraceNumberDto[];

  /** Null: as fast as it goes. */
  @ValidateIf((_, value) => value !== undefined && value !== null)
  @IsNumber()
  @Min(1e-9)
  @Max(1e6)
  speed?: number | null;

  @MayBeAbsent()
  @IsObject()
  @ValidateNested()
  @Type(() => TraceMarksDto)
  marks?: TraceMarksDto;
}

/** A job file as class-validator checks it; docs/job-file.md describes each field. */
export class JobFileDto {
  @IsIn(['saddlebag-job'])
  format!: 'saddlebag-job';

  @IsIn([FILE_VERSION])
  version!: typeof FILE_VERSION;

  @IsString()
  @Length(1, MAX_JOB_NAME)
  @Plain()
  name!: string;

  @IsIn([...familyIds])
  family!: FamilyId;

  @IsString()
  @MaxLength(1_000_000)
  sheet!: string;

  @MayBeAbsent()
  @IsObject()
  @ValidateNested()
  @Type(() => OwnTableDto)
  ownTable?: OwnTableDto;

  @MayBeAbsent()
  @IsArray()
  @ArrayMaxSize(200)
  @IsString({ each: true })
  @Length(1, TRACE_LETTERS.pin, { each: true })
  excluded?: string[];

  @MayBeAbsent()
  @IsArray()
  @ArrayMaxSize(1000)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => SilencedDto)
  silenced?: SilencedDto[];

  @MayBeAbsent()
  @IsObject()
  @ValidateNested()
  @Type(() => LocksDto)
  locks?: LocksDto;

  @MayBeAbsent()
  @IsObject()
  @ValidateNested()
  @Type(() => TraceDto)
  trace?: TraceDto;

  @MayBeAbsent()
  @IsObject()
  @ValidateNested()
  @Type(() => PackingDto)
  packing?: PackingDto;

  @IsObject()
  @ValidateNested()
  @Type(() => BoardDto)
  board!: BoardDto;
}

/** A field that is wrong: its path (`board.parts[3].at`) and what it must be. */
export interface FieldProblem {
  readonly path: string;
  readonly detail: string;
}

/** Checks a plain object against the shapes above: the object as a `JobFileDto`, or its problems. */
export function checkShape(plain: object): JobFileDto | FieldProblem[] {
  const file = plainToInstance(JobFileDto, plain);
  const errors = validateSync(file, { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true });
  return errors.length > 0 ? flatten(errors, '') : file;
}

function flatten(errors: readonly ValidationError[], base: string): FieldProblem[] {
  return errors.flatMap((e) => {
    const step = /^\d+$/.test(e.property) ? `[${e.property}]` : base === '' ? e.property : `.${e.property}`;
    const path = base + step;
    const here = Object.values(e.constraints ?? {}).map((detail) => ({ path, detail }));
    return [...here, ...flatten(e.children ?? [], path)];
  });
}
