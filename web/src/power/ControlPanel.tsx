import { Box, Button, Flex, Text } from '@chakra-ui/react';
import {
  type Board,
  byNumber,
  cutPin,
  DIAL_END,
  innerName,
  innerOf,
  type LampColour,
  type LampReading,
  type LedState,
  pinOf,
  placeNamed,
  typeOf,
} from '@saddlebag/core';
import { memo, type ReactNode, useCallback, useSyncExternalStore } from 'react';
import { colour } from '../base/colours';
import { type ReadBoard, useJobView } from '../base/job-context';
import { fixed } from '../base/numbers';
import { domes } from '../kit/board/SmallParts';
import { KeyCap, Panel } from '../kit/Panel';
import { Tag } from '../kit/Tag';
import { LargeReadings } from './LargeReadings';
import { runsByItself, switchKeys } from './switch-keys';
import { TimeControls } from './TimeControls';

const ledWords: Readonly<Record<LedState, string>> = {
  dark: 'dark',
  lit: 'lit',
  dim: 'too dim to see',
  over: 'burns',
  destroyed: 'destroyed',
  unknown: 'unknown level',
};

/** The same of a buzzer. */
const soundWords: typeof ledWords = { ...ledWords, dark: 'silent', lit: 'sounds', dim: 'too weak to sound' };
const wordsOf = (colour: LampColour): typeof ledWords => (colour === 'sound' ? soundWords : ledWords);

/** What a lamp shows, with its current; one of a common anode is lit by a low level. */
function wordsFor({ state, ma }: LampReading, inverted: boolean, colour: LampColour): string {
  const own = wordsOf(colour)[state];
  if (state === 'dark' || state === 'unknown' || state === 'destroyed')
    return inverted && state === 'dark' ? `${own}: high` : own;
  // Its dome shows that it is lit; the captions of seven segments stand close to each other.
  const words = inverted && state === 'lit' ? 'low' : own;
  return `${words}, ${fixed(ma, ma < 0.1 ? 3 : 1)} mA`;
}

/** A signal as the sheet declares it. */
interface Declared {
  readonly name: string;
  readonly label?: string;
}

/** Large switches and lamps for what is on the board, each with its signal and its key. */
export function ControlPanel() {
  const { job, bench, board, reading, subject } = useJobView();
  const { inputs, outputs } = subject;
  const flip = useCallback((ref: string) => bench.flip(ref), [bench]);
  const isCrowded = inputs.length + outputs.length > 9;
  const sizes = { width: isCrowded ? '74px' : '82px', isCrowded };
  const declared = reading?.design;
  const others = otherActuators(
    board,
    new Set(inputs.flatMap((name) => placeNamed(job.board, 'give', name)?.called ?? [])),
  );
  return (
    <Panel title="Switches and lamps" actions={<TimeControls />} flexShrink={0} maxH="230px">
      <Flex gap="6px 18px" wrap="wrap" px="14px" pb="12px" overflowY="auto">
        <Switches names={inputs} declared={declared?.inputs} onFlip={flip} {...sizes} />
        <OtherSwitches actuators={others} onFlip={flip} />
        <Lamps names={outputs} declared={declared?.outputs} {...sizes} />
        <LargeReadings board={board.board} bench={bench} outputs={outputs} />
        <Dials board={board} />
      </Flex>
    </Panel>
  );
}

interface SignalsProps {
  readonly names: readonly string[];
  readonly declared: readonly Declared[] | undefined;
  readonly width: string;
  /** There are so many that what the sheet calls them has no room. */
  readonly isCrowded: boolean;
}

const labelOf = (name: string, { declared = [], isCrowded }: SignalsProps): string | undefined =>
  isCrowded ? undefined : declared.find((s) => s.name === name)?.label;

/** A large switch for each input. */
function Switches({ onFlip, ...signals }: SignalsProps & { readonly onFlip: (actuator: string) => void }) {
  const { job, bench } = useJobView();
  useSyncExternalStore(bench.subscribe, bench.snapshot);
  const keys = switchKeys(signals.names.filter((name) => !runsByItself(job.board, name)));
  return (
    <Flex gap={signals.isCrowded ? '4px' : '8px'} wrap="wrap">
      {signals.names.map((name) => {
        const place = placeNamed(job.board, 'give', name);
        const ref = place?.called;
        const [label, isOn] = [labelOf(name, signals), ref !== undefined && bench.isOn(ref)];
        if (place?.runsByItself)
          return <RunningControl key={name} name={name} label={label} on={isOn} width={signals.width} />;
        return (
          <SwitchControl
            key={name}
            name={name}
            label={label}
            keyCap={keys.get(name)}
            on={isOn}
            part={ref}
            isButton={isPushButton(job.board, ref)}
            width={signals.width}
            onFlip={onFlip}
          />
        );
      })}
    </Flex>
  );
}

/** A large lamp for each output, with what it shows. */
function Lamps(signals: SignalsProps) {
  const { job, bench } = useJobView();
  const { on } = useSyncExternalStore(bench.subscribe, bench.snapshot);
  return (
    <Flex gap={signals.isCrowded ? '4px' : '8px'} wrap="wrap">
      {signals.names.map((name) => {
        const { called: ref, inverted = false } = placeNamed(job.board, 'show', name) ?? {};
        const lit = ref === undefined ? null : bench.lamp(ref);
        const colour = colourOf(job.board, ref);
        return (
          <LampControl
            key={name}
            name={name}
            led={ref === undefined ? null : on ? bench.led(ref) : 'dark'}
            colour={colour}
            words={lit ? wordsFor(lit, inverted, colour) : labelOf(name, signals)}
            width={signals.width}
          />
        );
      })}
    </Flex>
  );
}

interface OtherSwitchesProps {
  readonly actuators: readonly string[];
  readonly onFlip: (actuator: string) => void;
}

/** A box for each switch that no input of the design is set by. */
function OtherSwitches({ actuators, onFlip }: OtherSwitchesProps) {
  const { bench } = useJobView();
  useSyncExternalStore(bench.subscribe, bench.snapshot);
  if (actuators.length === 0) return null;
  return (
    <Flex
      gap="4px 10px"
      wrap="wrap"
      direction="column"
      maxH="110px"
      aria-label="switches not used as inputs"
      role="group"
    >
      {actuators.map((actuator) => (
        <Flex as="label" key={actuator} gap="5px" align="center" fontFamily="mono" fontSize="12.5px" cursor="pointer">
          <input type="checkbox" checked={bench.isOn(actuator)} onChange={() => onFlip(actuator)} />
          {actuator}
        </Flex>
      ))}
    </Flex>
  );
}

/** A slider for each potentiometer: its wiper's way from the first end to the last. */
function Dials({ board: { board } }: { readonly board: ReadBoard }) {
  const { bench } = useJobView();
  useSyncExternalStore(bench.subscribe, bench.snapshot);
  const dials = Object.values(board.parts).filter((part) => typeOf(part)?.kind === 'potentiometer');
  if (dials.length === 0) return null;
  return (
    <Flex direction="column" gap="6px 20px" maxH="110px" wrap="wrap" role="group" aria-label="potentiometers">
      {dials
        .sort((a, b) => byNumber(a.ref, b.ref))
        .map(({ ref }) => (
          <Box as="label" key={ref} w="110px" fontFamily="mono" fontSize="12.5px">
            <Flex justify="space-between" mb="3px">
              {ref}
              <span>{bench.dialAt(ref)} %</span>
            </Flex>
            <Box asChild w="100%" display="block" accentColor="leather">
              <input
                type="range"
                min={0}
                max={DIAL_END}
                value={bench.dialAt(ref)}
                aria-label={ref}
                aria-valuetext={`wiper ${bench.dialAt(ref)} % of the way from the first end`}
                onChange={(e) => bench.turn(ref, e.target.valueAsNumber)}
              />
            </Box>
          </Box>
        ))}
    </Flex>
  );
}

/** Actuators that are wired to something but give no input of the sheet: contacts of DIP switches, clocks, spare switches. */
function otherActuators({ board, nets }: ReadBoard, stimuli: ReadonlySet<string>): string[] {
  return Object.values(board.parts)
    .sort((a, b) => byNumber(a.ref, b.ref))
    .flatMap((part) => {
      const isWired = (pin: string): boolean =>
        (nets.nets[nets.ofPin.get(pinOf(part.ref, pin)) ?? -1]?.pins.length ?? 0) > 1;
      const wired = innerOf(typeOf(part)).contacts.filter((c) => isWired(c.a) && isWired(c.b));
      return [...new Set(wired.map((c) => innerName(part.ref, c.actuator)))].filter(
        (actuator) => !stimuli.has(actuator),
      );
    });
}

interface ControlProps {
  readonly name: string;
  readonly width: string;
  /** What stands below it; a warning where `isBad`. */
  readonly words: string | undefined;
  readonly isBad?: boolean;
  readonly keyCap?: string | undefined;
  readonly children: ReactNode;
}

/** A switch, lamp or what runs by itself, over its signal, its key and its words. */
const Control = ({ name, width, words, isBad = false, keyCap, children }: ControlProps) => (
  <Box textAlign="center" w={width}>
    {children}
    <Flex justify="center" align="center" gap="4px" mt="3px">
      <Tag signal={name} />
      {keyCap !== undefined && <KeyCap>{keyCap}</KeyCap>}
    </Flex>
    <Text fontSize="11.5px" color={isBad ? 'bad' : 'soft'} lineHeight="14px" mt="2px">
      {words}
    </Text>
  </Box>
);

interface SwitchControlProps {
  readonly name: string;
  readonly label: string | undefined;
  readonly keyCap: string | undefined;
  readonly on: boolean;
  /** The switch's reference; none when no switch on the board gives the signal. */
  readonly part: string | undefined;
  readonly isButton: boolean;
  readonly width: string;
  readonly onFlip: (ref: string) => void;
}

interface CapProps {
  readonly on: boolean;
}

/** What slides in a switch. */
const SlideCap = ({ on }: CapProps) => (
  <Box
    position="absolute"
    left="6px"
    right="6px"
    h="19px"
    rounded="4px"
    bg={on ? 'lit' : '#F4EFE4'}
    top={on ? '5px' : undefined}
    bottom={on ? undefined : '5px'}
  />
);

/** What is pressed of a push-button: lower, and so narrower, while it is. */
const ButtonCap = ({ on }: CapProps) => (
  <Box
    position="absolute"
    inset="0"
    m="auto"
    boxSize={on ? '20px' : '26px'}
    rounded="full"
    bg={on ? 'lit' : '#F4EFE4'}
    data-cap="button"
  />
);

const SwitchControl = memo(function SwitchControl(props: SwitchControlProps) {
  const { name, label, keyCap, on, part, isButton, width, onFlip } = props;
  return (
    <Control name={name} width={width} words={part === undefined ? 'no switch' : label} keyCap={keyCap}>
      <Button
        h="50px"
        w="38px"
        p="0"
        role="switch"
        aria-checked={on}
        aria-label={`${name}${label ? `, ${label}` : ''}`}
        disabled={part === undefined}
        bg="leather"
        borderColor="leather"
        _hover={{ bg: 'leatherLight' }}
        position="relative"
        onClick={() => part !== undefined && onFlip(part)}
      >
        {isButton ? <ButtonCap on={on} /> : <SlideCap on={on} />}
      </Button>
    </Control>
  );
});

/** What gives a signal by itself, a clock module or a timer: a wave, and a point that is high or low as the signal is. */
const RunningControl = memo(function RunningControl(
  props: Pick<SwitchControlProps, 'name' | 'label' | 'on' | 'width'>,
) {
  const { name, label, on, width } = props;
  return (
    <Control name={name} width={width} words={label ?? 'runs by itself'}>
      <Flex justify="center" h="50px" align="center">
        <svg
          width="58"
          height="38"
          role="img"
          aria-label={`${name}${label ? `, ${label}` : ''}, runs by itself: ${on ? 'high' : 'low'}`}
        >
          <path d="M2 31 h9 v-24 h14 v24 h14 v-24 h14 v24 h3" fill="none" stroke="currentColor" strokeWidth="2.5" />
          <circle
            cx={on ? 46 : 32}
            cy={on ? 7 : 31}
            r="6"
            fill={colour(on ? 'lit' : 'card')}
            stroke="currentColor"
            strokeWidth="2"
          />
        </svg>
      </Flex>
    </Control>
  );
});

interface LampControlProps {
  readonly name: string;
  /** None when no LED on the board shows the signal. */
  readonly led: LedState | null;
  readonly colour: LampColour;
  readonly words: string | undefined;
  readonly width: string;
}

/** Whether what goes by a name is pressed, and not slid. */
function isPushButton({ parts }: Board, called: string | undefined): boolean {
  const part = parts[cutPin(called ?? '').ref];
  return part !== undefined && typeOf(part)?.kind === 'push-button';
}

/** The colour of the lamp that goes by a name; red where it has none. */
function colourOf({ parts }: Board, called: string | undefined): LampColour {
  const part = parts[cutPin(called ?? '').ref];
  return innerOf(part && typeOf(part)).lamps[0]?.colour ?? 'red';
}

const LampControl = memo(function LampControl({ name, led, colour, words, width }: LampControlProps) {
  const { lit, dark } = domes[colour];
  const isBad = led === 'over' || led === 'unknown' || led === 'destroyed';
  return (
    <Control name={name} width={width} words={led ? words : 'no LED'} isBad={isBad}>
      <Flex h="50px" align="center" justify="center">
        <Box
          w="34px"
          h="34px"
          rounded="full"
          role="img"
          aria-label={`${name} ${led ? wordsOf(colour)[led] : 'no LED'}`}
          bg={led === 'lit' ? lit : led === 'over' ? '#FFFFFF' : dark}
          borderWidth="2px"
          borderColor={led === 'lit' ? domes[colour].rim : '#2F1512'}
          style={{ boxShadow: led === 'lit' ? `0 0 16px 4px ${lit}8C` : undefined }}
        />
      </Flex>
    </Control>
  );
});
