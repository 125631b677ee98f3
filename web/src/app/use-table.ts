import { MAX_TABLE_INPUTS, type Netlist, type Table } from '@saddlebag/core';
import { useQuery } from '@tanstack/react-query';
import { stages } from '../workers/stages';
import { contentKey } from './content-key';

/** The truth table of a design, from the worker; undefined until it is filled, and for designs too wide for a table. */
export function useTable(netlist: Netlist | null): Table | undefined {
  const { data } = useQuery({
    queryKey: ['table', contentKey(netlist)],
    queryFn: () => stages().table(netlist as Netlist),
    enabled: netlist !== null && netlist.inputs.length <= MAX_TABLE_INPUTS,
  });
  return data;
}
