import { Box, Flex, Heading, Text } from '@chakra-ui/react';
import {
  edgesOf,
  type FamilyId,
  families,
  formatted,
  innerOf,
  interchangeable,
  kindsOfUnit,
  type Limit,
  limitsOf,
  ownLimits,
  type PartType,
  partNumber,
  type Unit,
} from '@saddlebag/core';
import { useState } from 'react';
import { Choice } from '../kit/Choice';
import { BenchPart } from './BenchPart';
import { ChipFromAbove } from './ChipFromAbove';
import { FunctionTable, useFunctionTable } from './FunctionTable';
import { Section } from './Section';
import { Timing } from './Timing';
import { TryChip } from './TryChip';
import { UsedOn } from './UsedOn';

/** Everything of one part: package, inside, function, edges, limits in a family, the catch, and who uses it. */
export function Datasheet({ type }: { readonly type: PartType }) {
  const made = type.chip?.families ?? [];
  const [wanted, setWanted] = useState<FamilyId>('HC');
  const family = made.includes(wanted) ? wanted : made[0];
  const number = type.chip ? partNumber(type.id, family ?? '74') : type.id;
  const kinds = kindsOfUnit(type);
  return (
    <Box as="article" px="14px" pb="14px" aria-label={number}>
      <Flex align="baseline" gap="10px" py="8px" wrap="wrap">
        <Heading as="h2" fontFamily="heading" fontWeight="600" fontSize="22px">
          {number}
        </Heading>
        <Text color="soft">{type.title}</Text>
        <Box ml="auto">
          <TryChip type={type} />
        </Box>
      </Flex>
      <Flex gap="8px" align="flex-start" bg="wash" rounded="8px" px="12px" py="8px" mb="10px">
        <Text fontWeight="600" whiteSpace="nowrap">
          Mind
        </Text>
        <Text>{type.caveat}</Text>
      </Flex>
      {type.chip ? <ChipFromAbove type={type} number={number} /> : <BenchPart type={type} />}
      {kinds.map(({ unit, names }) => (
        <UnitSection key={unit.name} type={type} unit={unit} count={names.length} of={type.units.length} />
      ))}
      {type.chip && (
        <Section
          title="Limits"
          beside={
            family && (
              <Choice label="family" value={family} width="210px" onChange={(value) => setWanted(value as FamilyId)}>
                {made.map((id) => (
                  <option key={id} value={id}>
                    {partNumber(type.id, id)}: {families[id].title}
                  </option>
                ))}
              </Choice>
            )
          }
        >
          <Box
            as="dl"
            display="grid"
            gridTemplateColumns="max-content 1fr"
            columnGap="16px"
            rowGap="1px"
            fontSize="13px"
          >
            {(family ? limitsOf(type.chip, family) : ownLimits(type.chip)).map((limit) => (
              <LimitLine key={limit.name} limit={limit} />
            ))}
          </Box>
        </Section>
      )}
      <UsedOn type={type} />
    </Box>
  );
}

/** A text in which a number stays with its unit, and a range in one line. */
const unbroken = (text: string): string => text.replace(/(?<=\d) (?=V|°C|pF|to)|(?<=to) (?=\d)/g, '\u00a0');

/** One limit: its name, its value, and in what it is promised. */
function LimitLine({ limit }: { readonly limit: Limit }) {
  return (
    <>
      <Box as="dt" color="soft">
        {limit.name}
      </Box>
      <Box as="dd">
        <Box as="span" fontFamily="mono" fontSize="12.5px">
          {limit.value}
        </Box>
        {limit.at && (
          <Box as="span" color="soft" fontSize="12px">
            {` at ${unbroken(limit.at)}`}
          </Box>
        )}
      </Box>
    </>
  );
}

interface UnitSectionProps {
  readonly type: PartType;
  readonly unit: Unit;
  readonly count: number;
  readonly of: number;
}

/** Which pins the analogue switches of a unit join, in words: `joins Z with Y0, Y1, …`. */
function joinsOf(type: PartType, { outputs }: Unit): string[] {
  const nameOf = (id: string): string => type.pins.find((p) => p.id === id)?.name ?? id;
  const byEnd = new Map<string, string[]>();
  for (const { a, b } of innerOf(type).devices)
    if (outputs.includes(a)) byEnd.set(b, [...(byEnd.get(b) ?? []), nameOf(a)]);
  return [...byEnd].map(([end, names]) => `joins ${nameOf(end)} with ${names.join(', ')}`);
}

/** What one kind of unit does: a function table where it is short, its equations otherwise, and its edges. */
function UnitSection({ type, unit, count, of }: UnitSectionProps) {
  const table = useFunctionTable(type, unit);
  const edges = edgesOf(unit);
  const joins = joinsOf(type, unit);
  // Which address lines of a memory are alike depends on what it holds; an enable and a negative supply are nothing to exchange.
  const swaps = type.chip?.memory || joins.length > 0 ? [] : interchangeable(unit);
  const drive = [...new Set(unit.drives)].filter((d) => d !== 'push-pull' && d !== 'analogue-switch');
  const title = of === 1 ? 'What it does' : count > 1 ? `Each of its ${count} units` : `Unit ${unit.name}`;
  return (
    <Section
      title={title}
      beside={
        <Text color="soft">
          {[
            ...drive,
            ...joins,
            ...(swaps.length > 0 ? [`${swaps.map((g) => g.join(' ')).join(', ')} may be exchanged`] : []),
          ].join(' · ')}
        </Text>
      }
    >
      {table && <FunctionTable table={table} />}
      {table === null && <Equations type={type} unit={unit} />}
      {edges.length > 0 && (
        <Box pt="8px">
          {edges.slice(0, 6).map((line) => (
            <Text key={line} fontSize="13px">
              {line.charAt(0).toUpperCase() + line.slice(1)}.
            </Text>
          ))}
          <Box pt="6px">
            <Timing unit={unit} />
          </Box>
        </Box>
      )}
    </Section>
  );
}

/** The lines of a chip's behaviour that make a unit's signals, as its sheet has them. */
function Equations({ type, unit }: { readonly type: PartType; readonly unit: Unit }) {
  const own = new Set([
    ...unit.behaviour.gates.map((g) => g.output),
    ...unit.behaviour.stored.map((s) => s.name),
    ...unit.behaviour.outputs.map((o) => o.name),
  ]);
  const lines = formatted(type.behaviour)
    .split('\n')
    .filter((line) => !/^(in|out)\s/.test(line))
    .filter((line) => type.units.length === 1 || own.has(/^(?:table )?(\w+)/.exec(line)?.[1] ?? ''));
  return (
    <Box
      as="pre"
      fontFamily="mono"
      fontSize="12.5px"
      lineHeight="1.55"
      whiteSpace="pre-wrap"
      maxH="230px"
      overflowY="auto"
      tabIndex={0}
      role="region"
      aria-label="equations"
    >
      {lines.join('\n')}
    </Box>
  );
}
