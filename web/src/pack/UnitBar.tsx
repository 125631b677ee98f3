import { Box, Button, Flex, Text } from '@chakra-ui/react';
import {
  areEqual,
  choosable,
  findChip,
  gateTitle,
  type Netlist,
  type Packing,
  type PartType,
  placesFor,
  printPlace,
  readPartNumber,
  typeOf,
  type Unit,
  type UnitPlace,
  type UnitUse,
} from '@saddlebag/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useJobView } from '../base/job-context';
import { Choice } from '../kit/Choice';
import { lookAt } from '../kit/design-focus';
import { Tag } from '../kit/Tag';
import { TipButton } from '../kit/Tip';
import type { PackingHand } from './use-packing-hand';

interface UnitBarProps {
  readonly packing: Packing;
  readonly hand: PackingHand;
  readonly chosen: UnitPlace | null;
  readonly onChoose: (place: UnitPlace | null) => void;
}

/** What can be done to the unit that is chosen; without one, a package to add. */
export function UnitBar({ packing, hand, chosen, onChoose }: UnitBarProps) {
  const pack = packing.packages.find((p) => p.ref === chosen?.ref);
  const type = pack && typeOf(pack);
  const unit = chosen ? type?.units[chosen.unit] : undefined;
  const use = chosen ? (pack?.units[chosen.unit] ?? null) : null;
  return (
    <Box borderTopWidth="1px" borderColor="line" px="12px" py="6px" flexShrink={0} role="group" aria-label="unit">
      {!pack || !type || !unit || !chosen ? (
        <NewPackage hand={hand} />
      ) : (
        <Flex gap="8px" align="center" wrap="wrap" fontSize="13px">
          <Text fontFamily="heading" fontWeight="600" fontSize="15px">
            {printPlace(chosen)}
          </Text>
          {use ? (
            <Used packing={packing} hand={hand} place={chosen} unit={unit} use={use} onChoose={onChoose} />
          ) : (
            <Text color="soft">spare: drag a gate here, or choose one and move it</Text>
          )}
          <OfPackage
            hand={hand}
            place={chosen}
            type={type}
            bare={pack.units.every((u) => u === null)}
            onChoose={onChoose}
          />
          <Button ml="auto" variant="ghost" onClick={() => onChoose(null)}>
            Done
          </Button>
        </Flex>
      )}
    </Box>
  );
}

interface UsedProps extends Omit<UnitBarProps, 'chosen'> {
  readonly place: UnitPlace;
  readonly unit: Unit;
  readonly use: UnitUse;
}

/** A unit in use: what it makes of what, with its inputs to swap, its place to change and to keep. */
function Used({ packing, hand, place, unit, use, onChoose }: UsedProps) {
  const netlist = useJobView().reading?.design.netlist;
  if (!netlist) return null;
  const pinned = hand.locks.pins.some((p) => p.net === use.output);
  const own = netlist.gates.some((g) => g.output === use.output);
  const move = (to: UnitPlace): void => {
    hand.move(place, to);
    onChoose(to);
  };
  return (
    <>
      <Tag signal={use.output} />
      <Text>= {unit.gate ? gateTitle(unit.gate) : 'unit'} of</Text>
      <Inputs unit={unit} use={use} onSwap={(i, j) => hand.swap(place, i, j)} />
      {own && (
        <Button aria-pressed={pinned} onClick={() => hand.pin(use.output, !pinned)}>
          {pinned ? 'Unpin' : 'Pin here'}
        </Button>
      )}
      <MoveChoice packing={packing} places={placesFor(packing, hand.locks, netlist, place)} onMove={move} />
      <OnTheSheet netlist={netlist} use={use} />
    </>
  );
}

interface InputsProps {
  readonly unit: Unit;
  readonly use: UnitUse;
  readonly onSwap: (i: number, j: number) => void;
}

/** What a unit reads, with a way to swap neighbours that do the same. */
function Inputs({ unit, use, onSwap }: InputsProps) {
  const swapOf = (i: number): string => `swap pins ${unit.inputs[i - 1]} and ${unit.inputs[i]}`;
  return use.inputs.map((net, i) => (
    // biome-ignore lint/suspicious/noArrayIndexKey: a unit may have one net at several inputs
    <Flex key={`${i} ${net}`} align="center" gap="4px">
      {i > 0 && areEqual(unit, i - 1, i) && use.inputs[i - 1] !== net && (
        <TipButton
          tip={swapOf(i)}
          variant="ghost"
          px="3px"
          minW="20px"
          aria-label={swapOf(i)}
          onClick={() => onSwap(i - 1, i)}
        >
          ⇄
        </TipButton>
      )}
      <Tag signal={net} />
    </Flex>
  ));
}

interface MoveChoiceProps {
  readonly packing: Packing;
  readonly places: readonly UnitPlace[];
  readonly onMove: (to: UnitPlace) => void;
}

/** The units that a gate may move to, each with what it is for now. */
function MoveChoice({ packing, places, onMove }: MoveChoiceProps) {
  if (places.length === 0) return null;
  const usedFor = ({ ref, unit }: UnitPlace): string => {
    const there = packing.packages.find((x) => x.ref === ref)?.units[unit]?.output;
    return there === undefined ? 'spare' : `for ${there}`;
  };
  const move = (text: string): void => {
    const to = places.find((p) => printPlace(p) === text);
    if (to) onMove(to);
  };
  return (
    <Choice label="move to" value="" width="128px" onChange={move}>
      <option value="">Move to …</option>
      {places.map((p) => (
        <option key={printPlace(p)} value={printPlace(p)}>
          {printPlace(p)} {usedFor(p)}
        </option>
      ))}
    </Choice>
  );
}

/** Leads to the line of the sheet that a unit is for. */
function OnTheSheet({ netlist, use }: { readonly netlist: Netlist; readonly use: UnitUse }) {
  const { id } = useJobView();
  const navigate = useNavigate();
  const gate = netlist.gates.find((g) => g.output === use.gate) ?? netlist.gates.find((g) => g.output === use.output);
  const cell = netlist.cells.find((c) => (c.kind === 'part' ? c.ref : c.output) === use.gate);
  const at = gate?.at ?? cell?.at;
  if (!at) return null;
  const show = (): void => {
    lookAt({ gate: gate?.output ?? null });
    void navigate(`/job/${id}/design`, { state: { at: at.from } });
  };
  return <Button onClick={show}>On the sheet</Button>;
}

interface OfPackageProps {
  readonly hand: PackingHand;
  readonly place: UnitPlace;
  readonly type: PartType;
  readonly bare: boolean;
  readonly onChoose: (place: null) => void;
}

/** What can be done to the package of the chosen unit. */
function OfPackage({ hand, place, type, bare, onChoose }: OfPackageProps) {
  const { job, session } = useJobView();
  const excluded = job.excluded ?? [];
  const drop = (): void => {
    hand.drop(place.ref);
    onChoose(null);
  };
  return (
    <>
      {bare && <Button onClick={drop}>Remove {place.ref}</Button>}
      {choosable.includes(type.id) && !excluded.includes(type.id) && (
        <TipButton
          tip="Exclude this chip from this job; then pack again."
          onClick={() => session.dispatch({ kind: 'exclude', chips: [...excluded, type.id] })}
        >
          Exclude {type.id}
        </TipButton>
      )}
    </>
  );
}

function NewPackage({ hand }: { readonly hand: PackingHand }) {
  const [part, setPart] = useState(choosable[0] ?? '');
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        hand.add(part);
      }}
    >
      <Flex gap="8px" align="center" fontSize="13px">
        <Text color="soft">Drag a gate to another unit, or press a unit; or add</Text>
        <Choice label="package to add" value={part} width="230px" onChange={setPart}>
          {choosable.map((n) => (
            <option key={n} value={n}>
              {readPartNumber(n)?.base} {findChip(n)?.title}
            </option>
          ))}
        </Choice>
        <Button type="submit">Add</Button>
      </Flex>
    </form>
  );
}
