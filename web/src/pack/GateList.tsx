import { Box, Text } from '@chakra-ui/react';
import {
  drivenBy,
  gateTitle,
  isOneToOne,
  isPlain,
  looseNets,
  type Packing,
  printPlace,
  shownSignal,
  typeOf,
  type Unit,
  type UnitPlace,
  type UnitUse,
} from '@saddlebag/core';
import { useJobView } from '../base/job-context';
import { followProps, useFollowed } from '../kit/follow';
import { Tag } from '../kit/Tag';
import { useGrowingCount } from '../kit/use-growing-count';

/** What a use of a unit is for, beside the plain case. */
function purpose(use: UnitUse, unit: Unit, oneToOne: boolean): string {
  const [kind, width] = [unit.gate?.kind ?? 'aoi', unit.inputs.length];
  if (use.part === 'piece') return `one step of ${use.gate}`;
  if (use.part === 'inverter') return `completes ${use.gate}`;
  const distinct = new Set(use.inputs).size;
  // Packed by functions, a unit need not be the gate that the sheet has.
  if (!oneToOne)
    return `${unit.gate ? gateTitle(unit.gate) : 'AND-OR-invert'} of ${[...new Set(use.inputs)].map(shownSignal).join(', ')}`;
  if (kind !== 'not' && distinct === 1) return 'spare unit as inverter, inputs joined';
  if (use.inputs.includes('1')) return 'spare unit as inverter, one input high';
  return distinct < width ? 'spare inputs joined' : '';
}

/** What a unit is there for: a block with all that it makes, a gate of the sheet, one that pins of flip-flops need, or a part used by number. */
function secondLine(
  pack: Packing['packages'][number],
  use: UnitUse,
  unit: Unit,
  { isOfSheet, made, oneToOne }: { readonly isOfSheet: boolean; readonly made: string[]; readonly oneToOne: boolean },
): string {
  if (use.part === 'block') return `${typeOf(pack)?.title}, for ${made.join(', ')}`;
  if (isPlain(unit) && isOfSheet) return purpose(use, unit, oneToOne);
  if (isPlain(unit) && use.output === use.gate) return 'for pins of flip-flops';
  return `${use.gate}, ${unit.outputs.length > 1 ? `${unit.outputs.length} outputs` : 'used by number'}`;
}

/** The pins on which a unit gives what is wanted of it, those that lead nowhere left out: `pin 3`, `pins 4, 9`. */
function pinsOf(use: UnitUse, unit: Unit, loose: ReadonlySet<string>): string {
  const pins = drivenBy(use).flatMap((net, k) => (loose.has(net) ? [] : [unit.outputs[k] ?? '']));
  return pins.length > 1 ? `pins ${pins.join(', ')}` : `pin ${pins[0] ?? unit.outputs[0]}`;
}

interface GateListProps {
  readonly packing: Packing;
  readonly chosen: UnitPlace | null;
  /** Absent where the packing is only looked at. */
  readonly onChoose: ((place: UnitPlace) => void) | undefined;
}

/** Gates that are listed at once; the others follow, out of sight. */
const AT_ONCE = { first: 16, more: 30 } as const;

/** Each gate of the design with the unit that it sits in. */
export function GateList({ packing, chosen, onChoose }: GateListProps) {
  const { reading } = useJobView();
  const followed = useFollowed();
  const loose = looseNets(packing);
  const madeBy = (use: UnitUse): string[] => drivenBy(use).filter((net) => !loose.has(net));
  const says = new Map(reading?.design.netlist?.gates.map((g) => [g.output, g.says]));
  const rows = packing.packages.flatMap((pack) => {
    const type = typeOf(pack);
    return pack.units.flatMap((use, i) => {
      const unit = type?.units[i];
      return use && unit ? [{ pack, use, unit, place: { ref: pack.ref, unit: i } }] : [];
    });
  });
  const shown = useGrowingCount(rows.length, AT_ONCE);
  return (
    <Box as="ul" listStyleType="none" overflowY="auto" tabIndex={0}>
      {rows.slice(0, shown).map(({ pack, use, unit, place }) => (
        <Box
          as="li"
          key={`${pack.ref} ${unit.name}`}
          px="12px"
          py="5px"
          borderTopWidth="1px"
          borderColor="line"
          bg={followed === use.output ? 'wash' : undefined}
          boxShadow={
            chosen && printPlace(chosen) === printPlace(place) ? 'inset 3px 0 var(--sb-colors-moss)' : undefined
          }
          display="grid"
          gridTemplateColumns="74px 1fr auto"
          gap="8px"
          alignItems="center"
          {...followProps(use.output)}
        >
          <Box>
            <Tag signal={madeBy(use)[0] ?? use.output} />
          </Box>
          <Box
            minW="0"
            as={onChoose ? 'button' : 'div'}
            textAlign="left"
            cursor={onChoose ? 'pointer' : undefined}
            onClick={onChoose && (() => onChoose(place))}
          >
            <Text fontFamily="mono" fontSize="13px" truncate>
              {says.get(use.output) ?? use.inputs.join(' ')}
            </Text>
            <Text fontSize="12px" color="soft" truncate>
              {secondLine(pack, use, unit, {
                isOfSheet: says.has(use.gate),
                made: madeBy(use),
                oneToOne: isOneToOne(packing.strategy),
              })}
            </Text>
          </Box>
          <Text fontFamily="mono" fontSize="12.5px" color="soft" textAlign="right">
            {printPlace(place)} {pinsOf(use, unit, loose)}
          </Text>
        </Box>
      ))}
    </Box>
  );
}
