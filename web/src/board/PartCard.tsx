import { Box, Button, Flex, Input, Text } from '@chakra-ui/react';
import {
  hasValue,
  labelPlacesOf,
  leadsOf,
  type PartType,
  printHole,
  type SeatedPart,
  shownSignal,
  supplyLimitMaOf,
  typeOf,
} from '@saddlebag/core';
import { useJobView } from '../base/job-context';
import { shownValue } from '../base/words';
import { Panel } from '../kit/Panel';
import { TipButton } from '../kit/Tip';
import type { CardProps } from './ThingCards';

interface PartCardProps extends CardProps {
  readonly part: SeatedPart;
}

/** A chosen part: what can be done with it, what may be written on it, and its pins with what they carry. */
export function PartCard({ part, onDispatch, onSay }: PartCardProps) {
  const type = typeOf(part);
  return (
    <Panel
      title={`${part.ref} ${part.part}`}
      hint={type?.title}
      flex="1.3"
      actions={
        <>
          <TipButton
            tip="a fixed part stays where it is when the board is laid out"
            aria-pressed={part.fixed === true}
            onClick={() => onSay(`${part.fixed ? 'unfix' : 'fix'} ${part.ref}`)}
          >
            {part.fixed ? 'Unfix' : 'Fix'}
          </TipButton>
          <Button onClick={() => onSay(`rotate ${part.ref}`)}>Rotate</Button>
          <Button onClick={() => onSay(`pull ${part.ref}`)}>Pull out</Button>
        </>
      }
    >
      <Box overflowY="auto" px="12px" tabIndex={0}>
        <PartFields part={part} type={type} onDispatch={onDispatch} onSay={onSay} />
        <Pins part={part} columns={type?.kind === 'chip' ? 2 : 1} />
        <Text fontSize="12.5px" color="soft" mt="3px">
          {type?.caveat}
        </Text>
      </Box>
    </Panel>
  );
}

interface PartFieldsProps extends PartCardProps {
  readonly type: PartType | null;
}

/** What a person writes on a part: its signals, its value, how far its leads are apart, what it is replaced by. */
function PartFields({ part, type, onDispatch, onSay }: PartFieldsProps) {
  const places = labelPlacesOf(part);
  return (
    <Flex gap={places.length > 1 ? '2px 8px' : '14px'} mb="4px" wrap="wrap">
      {places.map(({ name, called, does, signal = '' }) => (
        <Field
          key={called}
          label={name === '' ? 'signal' : name}
          title={`the signal that ${called} ${does}s`}
          narrow={name !== ''}
          mayBeEmpty
          value={signal}
          onTake={(to) => onDispatch({ kind: 'label', ref: part.ref, signal: to, ...(name !== '' && { of: name }) })}
        />
      ))}
      {hasValue(type?.kind) && (
        <Field
          label="value"
          value={shownValue(type?.kind ?? '', part.value).trim()}
          onTake={(text) => onSay(`value ${part.ref} ${text.replaceAll(' ', '')}`)}
        />
      )}
      {type?.spans && (
        <Field
          label="holes apart"
          title={`how far its leads are bent apart: ${type.spans.join(' to ')}`}
          narrow
          value={String(apartOf(type))}
          onTake={(text) => onSay(`span ${part.ref} ${text}`)}
        />
      )}
      {part.part === 'supply' && (
        <Field
          label="limit, mA"
          title="the most current that the supply gives"
          value={String(supplyLimitMaOf([part]))}
          onTake={(text) => onSay(`limit ${part.ref} ${text.replaceAll(' ', '')}`)}
        />
      )}
      {type?.kind === 'chip' && (
        <Field label="replace by" value={part.part} onTake={(by) => onSay(`replace ${part.ref} ${by}`)} />
      )}
    </Flex>
  );
}

interface PinsProps {
  readonly part: SeatedPart;
  readonly columns: number;
}

/** The pins of a part, each with its name, the signal it carries and the hole it sits in. */
function Pins({ part, columns }: PinsProps) {
  const { board } = useJobView();
  const carries = (pin: string): string => {
    const net = board.nets.ofPin.get(pin);
    const name = net === undefined ? undefined : board.names.get(net);
    return name === undefined ? '—' : shownSignal(name);
  };
  return (
    <Box columnCount={columns} columnGap="20px">
      {leadsOf(part).map(({ pin, type, hole }) => (
        <Flex key={pin} gap="8px" fontFamily="mono" fontSize="12px" lineHeight="17px">
          <Text w="18px" textAlign="right">
            {type.id}
          </Text>
          <Text w="52px" color="soft" truncate>
            {type.name}
          </Text>
          <Text flex="1" fontWeight="600" truncate>
            {carries(pin)}
          </Text>
          <Text color="soft">{hole ? printHole(hole) : 'no hole'}</Text>
        </Flex>
      ))}
    </Box>
  );
}

/** A short text of a part that is taken when the person leaves it or presses Enter. */
function Field({
  label,
  title,
  value,
  narrow = false,
  mayBeEmpty = false,
  onTake,
}: {
  readonly label: string;
  readonly title?: string;
  readonly value: string;
  readonly narrow?: boolean;
  readonly mayBeEmpty?: boolean;
  readonly onTake: (text: string) => void;
}) {
  return (
    <Flex as="label" align="center" gap={narrow ? '4px' : '8px'} title={title}>
      <Text as="span" {...(narrow && { w: '18px', fontFamily: 'mono', fontSize: '12px', textAlign: 'right' as const })}>
        {label}
      </Text>
      <Input
        key={value}
        defaultValue={value}
        h="26px"
        w={narrow ? '58px' : '110px'}
        px={narrow ? '6px' : undefined}
        fontFamily="mono"
        bg="paper"
        borderColor="line"
        maxLength={120}
        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        onBlur={(e) => {
          const text = e.target.value.trim();
          if ((mayBeEmpty || text !== '') && text !== value) onTake(text);
        }}
      />
    </Flex>
  );
}

/** From the first lead of a part to the second, in tenths of an inch. */
const apartOf = ({ pins: [, second] }: PartType): number => Math.max(second?.dx ?? 0, second?.dy ?? 0);
