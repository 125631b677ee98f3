import type { Rule } from '../rule';
import { baseNoResistor } from './base-no-resistor';
import { baseTooWeak } from './base-too-weak';
import { builtOtherwise } from './built-otherwise';
import { buttonAlwaysClosed } from './button-always-closed';
import { capacitorFar } from './capacitor-far';
import { capacitorReversed } from './capacitor-reversed';
import { chipNoGround } from './chip-no-ground';
import { chipNoSupply } from './chip-no-supply';
import { chipTurnedRound } from './chip-turned-round';
import { chipsInOneStrip } from './chips-in-one-strip';
import { clockFromSwitch } from './clock-from-switch';
import { colourLies } from './colour-lies';
import { controlLeftOpen } from './control-left-open';
import { decodedReset } from './decoded-reset';
import { displayPolarity } from './display-polarity';
import { displaySharedResistor } from './display-shared-resistor';
import { fanOut } from './fan-out';
import { floatingInput } from './floating-input';
import { gateLeftOpen } from './gate-left-open';
import { holeCovered } from './hole-covered';
import { idleOutputWired } from './idle-output-wired';
import { jumperInOneStrip } from './jumper-in-one-strip';
import { jumperLeadsNowhere } from './jumper-leads-nowhere';
import { jumperRedundant } from './jumper-redundant';
import { labelAnswersNothing } from './label-answers-nothing';
import { leadOffBoard } from './lead-off-board';
import { ledBetweenSignals } from './led-between-signals';
import { ledCathodeOnSupply } from './led-cathode-on-supply';
import { ledCurrent, ledOverMaximum, outputOverMaximum } from './led-current';
import { ledNoResistor, ledResistorBridged } from './led-no-resistor';
import { ledNoReturn } from './led-no-return';
import { ledReversed } from './led-reversed';
import { ledShorted } from './led-shorted';
import { levelBetween, levelsDoNotMeet } from './level-between';
import { noCapacitor } from './no-capacitor';
import { noSupplySource } from './no-supply-source';
import { oneShotNoTime } from './one-shot-no-time';
import { openCollectorNoPullUp } from './open-collector-no-pull-up';
import { outputOnRail } from './output-on-rail';
import { outputsJoined } from './outputs-joined';
import { contentsDiffer, partDiffers, partStandsIn } from './part-differs';
import { partMissing } from './part-missing';
import { pinsInOneStrip } from './pins-in-one-strip';
import { pullTooWeak } from './pull-too-weak';
import { railHalfDead } from './rail-half-dead';
import { railNotFed } from './rail-not-fed';
import { releasedByAnalogueSwitches } from './released-by-analogue-switches';
import { signalHasNoLed } from './signal-has-no-led';
import { signalHasNoSwitch } from './signal-has-no-switch';
import { signalsJoined } from './signals-joined';
import { spareGatesSuffice } from './spare-gates-suffice';
import { suppliesJoined } from './supplies-joined';
import { supplyCurrent } from './supply-current';
import { supplyNotInCorners } from './supply-not-in-corners';
import { supplyOutOfRange, supplyOverMaximum } from './supply-out-of-range';
import { supplyShorted } from './supply-shorted';
import { switchBypassed } from './switch-bypassed';
import { switchFloats } from './switch-floats';
import { switchNoFeed } from './switch-no-feed';
import { switchInverted, switchOneLevel } from './switch-one-level';
import { switchShortsSupply } from './switch-shorts-supply';
import { transistorReversed } from './transistor-reversed';
import { twoLeadsInAHole } from './two-leads-in-a-hole';
import { unknownPart } from './unknown-part';
import { unusedInputOpen } from './unused-input-open';
import { wiringBeside } from './wiring-beside';
import { wiringMissing } from './wiring-missing';
import { wiringWrong } from './wiring-wrong';

/** Every rule, in the order in which findings are told: seating, supply, outputs, LEDs, wiring, inputs, switches, load, jumpers, practice. */
export const rules: readonly Rule[] = [
  unknownPart,
  builtOtherwise,
  leadOffBoard,
  twoLeadsInAHole,
  holeCovered,
  buttonAlwaysClosed,
  pinsInOneStrip,
  chipsInOneStrip,
  noSupplySource,
  supplyOverMaximum,
  supplyOutOfRange,
  supplyCurrent,
  suppliesJoined,
  supplyShorted,
  switchShortsSupply,
  railHalfDead,
  railNotFed,
  chipTurnedRound,
  chipNoSupply,
  chipNoGround,
  capacitorFar,
  capacitorReversed,
  noCapacitor,
  outputsJoined,
  outputOnRail,
  signalsJoined,
  partMissing,
  partDiffers,
  partStandsIn,
  contentsDiffer,
  signalHasNoSwitch,
  signalHasNoLed,
  labelAnswersNothing,
  displayPolarity,
  displaySharedResistor,
  ledShorted,
  ledReversed,
  ledCathodeOnSupply,
  ledNoResistor,
  ledResistorBridged,
  ledBetweenSignals,
  ledNoReturn,
  ledOverMaximum,
  outputOverMaximum,
  ledCurrent,
  wiringBeside,
  wiringWrong,
  wiringMissing,
  controlLeftOpen,
  floatingInput,
  unusedInputOpen,
  idleOutputWired,
  switchFloats,
  switchNoFeed,
  switchBypassed,
  switchOneLevel,
  switchInverted,
  pullTooWeak,
  transistorReversed,
  baseNoResistor,
  baseTooWeak,
  gateLeftOpen,
  oneShotNoTime,
  openCollectorNoPullUp,
  fanOut,
  levelsDoNotMeet,
  levelBetween,
  releasedByAnalogueSwitches,
  jumperInOneStrip,
  jumperLeadsNowhere,
  jumperRedundant,
  clockFromSwitch,
  decodedReset,
  colourLies,
  supplyNotInCorners,
  spareGatesSuffice,
];
