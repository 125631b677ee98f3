import { Box, Flex } from '@chakra-ui/react';
import { type Behaviour, cellAt, inputAt, MAX_TABLE_INPUTS, type Table, withCell, withoutDraft } from '@saddlebag/core';
import { type KeyboardEvent, type ReactNode, useEffect, useRef, useState } from 'react';
import { useJobView, useSession } from '../base/job-context';
import { useShortcuts } from '../base/shortcuts';
import { useTable } from '../base/use-table';
import { lookAt, useDesignFocus } from '../kit/design-focus';
import { useFollowed } from '../kit/follow';
import { Empty } from '../kit/Panel';
import { Tag } from '../kit/Tag';
import { useRows } from '../kit/use-rows';
import { useEditable } from './use-editable';
import { Why } from './Why';

const ROW = 24;
const next = { '0': '1', '1': '-', '-': '0', Z: '0' } as const;

const tableKeys = [
  { cap: 'arrows', does: 'from row to row, from output to output' },
  { cap: '0 1 −', does: 'write 0, 1 or don’t care' },
  { cap: 'Esc', does: 'let go of the row' },
] as const;

/** The table of the design, all rows, first input most significant; rows out of sight are not in the page. */
export function TruthTable({ behaviour }: { readonly behaviour: Behaviour }) {
  const table = useTable(behaviour);
  if (behaviour.inputs.length > MAX_TABLE_INPUTS)
    return (
      <Empty>
        {behaviour.inputs.length} inputs make too many rows to list; up to {MAX_TABLE_INPUTS} are listed. Gates,
        packing, board and comparing part by part work all the same.
      </Empty>
    );
  if (!table) return <Empty>Filling the table …</Empty>;
  return <Listed behaviour={behaviour} table={table} />;
}

/** Rows to look at and cells to set: arrows move, 0, 1 and - set a cell, and so does pressing one that is chosen. */
function Listed({ behaviour, table }: { readonly behaviour: Behaviour; readonly table: Table }) {
  const { outputs } = behaviour;
  const scroller = useRef<HTMLDivElement>(null);
  const { row, signal } = useDesignFocus();
  const { editable, choose, press, onKeyDown } = useCells(behaviour, table);
  // The heads stand above the rows and scroll with them.
  const padding = { scrollPaddingStart: 4, scrollPaddingEnd: 44 };
  const rows = useRows({ count: table.rows, scroller, height: ROW, beyond: 8, ...padding });
  useEffect(() => () => lookAt({ row: null, signal: null }), []);
  // After drawing: the reason below may just have taken some of the height.
  useEffect(() => {
    if (row !== null) rows.scrollToIndex(row);
  }, [row, rows]);
  return (
    <>
      <Box
        ref={scroller}
        flex="1"
        minH="0"
        overflow="auto"
        px="12px"
        pb="8px"
        tabIndex={0}
        role="region"
        aria-label="truth table"
        onKeyDown={onKeyDown}
      >
        <Box
          as="table"
          // Drawn as blocks it is no table to the browser any more: it says itself that it is one.
          role="table"
          aria-label="truth table, row by row"
          aria-rowcount={table.rows + 1}
          fontFamily="mono"
          fontSize="13px"
          w="100%"
          style={{ height: rows.getTotalSize() + 28, position: 'relative' }}
          display="block"
        >
          <Heads behaviour={behaviour} />
          <Box as="tbody" role="rowgroup" display="block" position="relative">
            {rows.getVirtualItems().map(({ index, start }) => (
              <Row key={index} start={start} row={index} isLookedAt={index === row}>
                <InputCells behaviour={behaviour} row={index} onPress={() => choose(index, null)} />
                <Box as="td" role="none" w="34px" flexShrink={0} />
                {outputs.map(({ name, net }, o) => {
                  const isChosen = index === row && name === signal;
                  const mark = cellAt(table, o, index);
                  const more = { mark, chosen: isChosen, settable: editable.has(name), onPress: () => press(index, o) };
                  return <Cell key={`o${name}`} net={net} {...more} />;
                })}
              </Row>
            ))}
          </Box>
        </Box>
      </Box>
      {row !== null && signal !== null && <Why row={row} signal={signal} settable={editable.has(signal)} />}
    </>
  );
}

/** What presses and keys do in the table: look at a row and an output (null: the one looked at before), and set its cell. */
function useCells(behaviour: Behaviour, table: Table) {
  const session = useSession();
  const { inputs, outputs } = behaviour;
  const { row, signal } = useDesignFocus();
  const [column, setColumn] = useState(0);
  const draft = useJobView().reading?.draft;
  const editable = useEditable(draft?.text ?? session.job.sheet, behaviour);
  const choose = (r: number, o: number | null): void => {
    const to = o ?? column;
    setColumn(to);
    lookAt({ row: r, signal: outputs[to]?.name ?? null });
  };
  const set = (r: number, o: number, mark: '0' | '1' | '-'): void => {
    const name = outputs[o]?.name;
    if (name === undefined || !editable.has(name) || cellAt(table, o, r) === mark) return;
    const { sheet } = session.job;
    if (draft && draft.source !== sheet) return;
    const text = withCell(draft?.text ?? sheet, inputs, name, { table, output: o, row: r, mark });
    session.dispatch({ kind: 'write-sheet', text: draft ? withoutDraft(draft, text) : text });
  };
  const press = (r: number, o: number): void => {
    if (row === r && signal === outputs[o]?.name) set(r, o, next[cellAt(table, o, r)]);
    else choose(r, o);
  };
  useShortcuts('In the truth table', tableKeys);
  const onKeyDown = (e: KeyboardEvent): void => {
    const now = row ?? 0;
    const move = (r: number, o: number): void => {
      const [y, x] = [Math.max(0, Math.min(table.rows - 1, r)), Math.max(0, Math.min(outputs.length - 1, o))];
      choose(y, x);
      e.preventDefault();
    };
    if (e.key === 'ArrowDown') move(row === null ? 0 : now + 1, column);
    else if (e.key === 'ArrowUp') move(now - 1, column);
    else if (e.key === 'ArrowLeft') move(now, column - 1);
    else if (e.key === 'ArrowRight') move(now, column + 1);
    else if (e.key === 'Escape') lookAt({ row: null, signal: null });
    else if (row !== null && (e.key === '0' || e.key === '1' || e.key === '-')) set(now, column, e.key);
    else return;
    e.stopPropagation();
  };
  return { editable, choose, press, onKeyDown };
}

interface RowProps {
  readonly row: number;
  /** Where it lies below the heads, in pixels. */
  readonly start: number;
  readonly isLookedAt: boolean;
  readonly children: ReactNode;
}

function Row({ row, start, isLookedAt, children }: RowProps) {
  return (
    <Box
      as="tr"
      role="row"
      aria-rowindex={row + 2}
      display="flex"
      alignItems="center"
      h={`${ROW}px`}
      borderTopWidth="1px"
      borderColor="line"
      position="absolute"
      top="0"
      left="0"
      right="0"
      bg={isLookedAt ? 'wash' : undefined}
      aria-current={isLookedAt || undefined}
      _hover={{ bg: 'wash' }}
      style={{ transform: `translateY(${start}px)` }}
    >
      {children}
    </Box>
  );
}

interface InputCellsProps {
  readonly behaviour: Behaviour;
  readonly row: number;
  readonly onPress: () => void;
}

function InputCells({ behaviour: { inputs }, row, onPress }: InputCellsProps) {
  return inputs.map((name, i) => (
    <Cell key={name} net={name} mark={String(inputAt(inputs.length, i, row))} onPress={onPress} />
  ));
}

const CELL = { width: 58, minWidth: 40, flexShrink: 1, textAlign: 'center' } as const;

function Heads({ behaviour: { inputs, outputs } }: { readonly behaviour: Behaviour }) {
  return (
    <Box as="thead" role="rowgroup" display="block" position="sticky" top="0" bg="card" zIndex="1">
      <Flex as="tr" role="row" aria-rowindex={1} h="28px" align="center">
        {inputs.map((name) => (
          <th key={name} scope="col" aria-label={name} style={CELL}>
            <Tag signal={name} />
          </th>
        ))}
        <Box as="td" role="none" w="34px" flexShrink={0} />
        {outputs.map(({ name }) => (
          <th key={name} scope="col" aria-label={name} style={CELL}>
            <Tag signal={name} />
          </th>
        ))}
      </Flex>
    </Box>
  );
}

interface CellProps {
  readonly net: string;
  readonly mark: string;
  readonly chosen?: boolean;
  readonly settable?: boolean;
  readonly onPress: () => void;
}

function Cell({ net, mark, chosen = false, settable = false, onPress }: CellProps) {
  const followed = useFollowed();
  const strong = mark === '1';
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: the table takes the keys for all of its cells
    <td
      onClick={onPress}
      title={settable && chosen ? 'press again, or type 0, 1 or - to set it' : undefined}
      style={{
        ...CELL,
        fontWeight: strong ? 600 : 400,
        color: `var(--sb-colors-${strong ? 'ink' : 'soft'})`,
        cursor: 'pointer',
        background: followed === net ? 'var(--sb-colors-wash)' : undefined,
        borderRadius: 4,
        boxShadow: chosen ? 'inset 0 0 0 2px var(--sb-colors-moss)' : undefined,
      }}
    >
      {mark}
    </td>
  );
}
