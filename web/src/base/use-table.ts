import { type Behaviour, MAX_TABLE_INPUTS, type Table } from '@saddlebag/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { stages } from '../workers/stages';
import { contentKey } from './content-key';

/** Whether a design has a truth table at all: it stores nothing, and its inputs are not too many. */
export function hasTable(behaviour: Behaviour | null): behaviour is Behaviour {
  return behaviour !== null && behaviour.stored.length === 0 && behaviour.inputs.length <= MAX_TABLE_INPUTS;
}

/** The truth table of a design, from the worker; undefined until it is filled, and for designs that have none. */
export function useTable(behaviour: Behaviour | null): Table | undefined {
  const { data } = useQuery({
    queryKey: ['table', contentKey(behaviour)],
    queryFn: () => stages().table(behaviour as Behaviour),
    enabled: hasTable(behaviour),
    placeholderData: keepPreviousData,
  });
  return data &&
    behaviour &&
    data.inputs === behaviour.inputs.length &&
    data.columns.length === behaviour.outputs.length
    ? data
    : undefined;
}
