import { Box, Button, Flex, Input, Text } from '@chakra-ui/react';
import { type Gate, type GateEdit, type GateKind, placeOf, printPlace, signalsOf } from '@saddlebag/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useJobView } from '../base/job-context';
import { Choice } from '../kit/Choice';
import { lookAt, useDesignFocus } from '../kit/design-focus';
import { Tag } from '../kit/Tag';
import { useGateEdit } from './use-gate-edit';

const connectives: readonly GateKind[] = ['and', 'or', 'xor', 'nand', 'nor', 'xnor'];
const kinds: readonly GateKind[] = ['not', ...connectives];

/** What can be done to the gate that is chosen in the diagram; without one, a gate to add. */
export function GateBar() {
  const view = useJobView();
  // While outputs are missing, the sheet as far as it is made.
  const reading = view.reading?.draft?.reading ?? view.reading;
  const { gate: chosen, refused } = useDesignFocus();
  const act = useGateEdit();
  if (!reading?.design.netlist) return null;
  const gate = reading.design.netlist.gates.find((g) => g.output === chosen);
  const open = view.reading?.draft?.open;
  const signals = [...reading.design.inputs.map((s) => s.name), ...signalsOf(reading.sheet)].filter(
    (n, i, all) => all.indexOf(n) === i && !open?.has(n),
  );
  return (
    <Box borderTopWidth="1px" borderColor="line" px="12px" py="6px" flexShrink={0} role="group" aria-label="gate">
      {gate ? (
        <ChosenGate key={gate.output} gate={gate} signals={signals} onAct={act} />
      ) : (
        <NewGate signals={signals} onAct={act} />
      )}
      {refused !== null && (
        <Text role="status" color="bad" fontSize="12.5px">
          {refused}
        </Text>
      )}
    </Box>
  );
}

interface BarProps {
  readonly signals: readonly string[];
  readonly onAct: (edit: GateEdit) => boolean;
}

function ChosenGate({ gate, signals, onAct }: BarProps & { readonly gate: Gate }) {
  const { packing, id } = useJobView();
  const navigate = useNavigate();
  const place = packing && placeOf(packing, gate.output);
  const { output, kind, inputs } = gate;
  const isInverter = kind === 'not';
  return (
    <Flex gap="8px" align="center" wrap="wrap" fontSize="13px">
      <Tag signal={output} />
      {isInverter ? <Text>inverter of</Text> : <KindChoice gate={gate} onAct={onAct} />}
      {inputs.map((net, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a gate may have one net at several inputs
        <Flex key={`${i} ${net}`} align="center">
          <Tag signal={net} />
          {!isInverter && (
            <Button
              variant="ghost"
              px="3px"
              minW="20px"
              aria-label={`cut input ${net}`}
              onClick={() => onAct({ act: 'cut', gate: output, input: i })}
            >
              ×
            </Button>
          )}
        </Flex>
      ))}
      {!isInverter && (
        <ConnectChoice signals={signals} onConnect={(signal) => onAct({ act: 'connect', gate: output, signal })} />
      )}
      <GateName gate={gate} onAct={onAct} />
      <Button onClick={() => onAct({ act: 'remove', gate: output })}>Remove</Button>
      {place && <Button onClick={() => void navigate(`/job/${id}/pack`)}>Its unit, {printPlace(place)}</Button>}
      <Button ml="auto" variant="ghost" onClick={() => lookAt({ gate: null })}>
        Done
      </Button>
    </Flex>
  );
}

type OfGateProps = Pick<BarProps, 'onAct'> & { readonly gate: Gate };

function KindChoice({ gate: { output, kind }, onAct }: OfGateProps) {
  return (
    <Choice
      label="kind of gate"
      value={kind}
      width="82px"
      onChange={(k) => onAct({ act: 'change', gate: output, kind: k as GateKind })}
    >
      {connectives.map((k) => (
        <option key={k} value={k}>
          {k.toUpperCase()}
        </option>
      ))}
    </Choice>
  );
}

function GateName({ gate: { output }, onAct }: OfGateProps) {
  const [name, setName] = useState(output);
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        onAct({ act: 'name', gate: output, name });
      }}
    >
      <Flex gap="4px">
        <NameField label="name of its signal" value={name} onChange={setName} />
        <Button type="submit" disabled={name === output || name === ''}>
          Name
        </Button>
      </Flex>
    </form>
  );
}

interface ConnectChoiceProps {
  readonly signals: readonly string[];
  readonly onConnect: (signal: string) => void;
}

function ConnectChoice({ signals, onConnect }: ConnectChoiceProps) {
  return (
    <Choice label="connect a signal" value="" width="108px" onChange={onConnect}>
      <option value="">connect …</option>
      {signals.map((s) => (
        <option key={s} value={s}>
          {s}
        </option>
      ))}
    </Choice>
  );
}

function NewGate({ signals, onAct }: BarProps) {
  const [kind, setKind] = useState<GateKind>('and');
  const [inputs, setInputs] = useState<readonly string[]>([]);
  const [name, setName] = useState('');
  const add = (): void => {
    if (!onAct({ act: 'add', kind, inputs, name })) return;
    setInputs([]);
    setName('');
  };
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        add();
      }}
    >
      <Flex gap="8px" align="center" wrap="wrap" fontSize="13px">
        <Text color="soft">Press a gate to change it, or draw a line to it. New gate:</Text>
        <Choice label="kind of new gate" value={kind} width="82px" onChange={(k) => setKind(k as GateKind)}>
          {kinds.map((k) => (
            <option key={k} value={k}>
              {k.toUpperCase()}
            </option>
          ))}
        </Choice>
        {inputs.map((s) => (
          <Flex key={s} align="center">
            <Tag signal={s} still />
            <Button
              variant="ghost"
              px="3px"
              minW="20px"
              aria-label={`leave out ${s}`}
              onClick={() => setInputs(inputs.filter((x) => x !== s))}
            >
              ×
            </Button>
          </Flex>
        ))}
        <Choice label="of signal" value="" width="96px" onChange={(s) => setInputs([...inputs, s])}>
          <option value="">of …</option>
          {signals
            .filter((s) => !inputs.includes(s))
            .map((s) => (
              <option key={s} value={s}>
                {s}
              </option>
            ))}
        </Choice>
        <NameField label="name of the new signal" value={name} onChange={setName} />
        <Button type="submit" disabled={name === '' || inputs.length === 0}>
          Add
        </Button>
      </Flex>
    </form>
  );
}

interface NameFieldProps {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
}

function NameField({ label, value, onChange }: NameFieldProps) {
  return (
    <Input
      aria-label={label}
      placeholder="name"
      size="xs"
      w="84px"
      h="26px"
      fontFamily="mono"
      bg="paper"
      borderColor="line"
      value={value}
      maxLength={40}
      onChange={(e) => onChange(e.target.value)}
    />
  );
}
