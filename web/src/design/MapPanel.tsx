import { Box, Button, Flex, Text } from '@chakra-ui/react';
import {
  type Behaviour,
  cellAt,
  combinationalPart,
  elementAt,
  exprOfCube,
  functionsOf,
  minimise,
  offRows,
  type Product,
  printExpr,
  type Table,
  withCell,
} from '@saddlebag/core';
import { useQuery } from '@tanstack/react-query';
import { type KeyboardEvent, type ReactNode, useMemo, useState } from 'react';
import { colour } from '../base/colours';
import { useJobView } from '../base/job-context';
import { onPaper, palette } from '../base/palette';
import { useShortcuts } from '../base/shortcuts';
import { hasTable, useTable } from '../base/use-table';
import { Choice } from '../kit/Choice';
import { lookAt, useDesignFocus } from '../kit/design-focus';
import { Empty } from '../kit/Panel';
import { SvgText } from '../kit/SvgText';
import { GapLines, GapMarks, useGaps } from './MapGaps';
import { boxesOf, CELL, type MapLayout, mapOf } from './map';
import { useEditable } from './use-editable';

const mapKeys = [
  { cap: 'arrows', does: 'from cell to cell' },
  { cap: '0 1 −', does: 'write 0, 1 or don’t care' },
] as const;

const next = { '0': '1', '1': '-', '-': '0', Z: '0' } as const;

/** A map of two to six inputs, with the groups of its smallest sum (ones) or product of sums (zeros); cells can be set. */
export function MapPanel({ behaviour: whole }: { readonly behaviour: Behaviour }) {
  const part = useMemo(() => combinationalPart(whole), [whole]);
  if (!part)
    return <Empty>Every output of this design hangs on what it stores; a map shows what follows from inputs.</Empty>;
  if (!hasTable(part) || part.inputs.length < 2 || part.inputs.length > 6)
    return (
      <Empty>A map shows two to six inputs, and this design has {part.inputs.length}. Restate works for more.</Empty>
    );
  return <MapOf behaviour={part} />;
}

function MapOf({ behaviour }: { readonly behaviour: Behaviour }) {
  const table = useTable(behaviour);
  const { outputs } = behaviour;
  const { signal } = useDesignFocus();
  const [chosen, setChosen] = useState<string | null>(null);
  const [groups, setGroups] = useState<'ones' | 'zeros'>('ones');
  if (!table) return <Empty>Filling the map …</Empty>;
  const name = chosen ?? signal ?? outputs[0]?.name ?? '';
  const o = Math.max(
    0,
    outputs.findIndex((x) => x.name === name),
  );
  return (
    <Flex direction="column" flex="1" minH="0">
      <Flex align="center" gap="8px" px="12px" pb="6px" flexShrink={0}>
        <Choice
          label="signal on the map"
          value={outputs[o]?.name ?? ''}
          width="130px"
          onChange={(value) => setChosen(value)}
        >
          {outputs.map((x) => (
            <option key={x.name} value={x.name}>
              {x.name}
            </option>
          ))}
        </Choice>
        <Button aria-pressed={groups === 'ones'} onClick={() => setGroups('ones')}>
          Groups of ones
        </Button>
        <Button aria-pressed={groups === 'zeros'} onClick={() => setGroups('zeros')}>
          Groups of zeros
        </Button>
        <Text ml="auto" fontSize="12.5px" color="soft">
          press a cell: 0, 1, -
        </Text>
      </Flex>
      <MapDrawing behaviour={behaviour} table={table} output={o} groups={groups} />
    </Flex>
  );
}

interface MapDrawingProps {
  readonly behaviour: Behaviour;
  readonly table: Table;
  readonly output: number;
  readonly groups: 'ones' | 'zeros';
}

function MapDrawing({ behaviour, table, output, groups }: MapDrawingProps) {
  const { inputs, outputs } = behaviour;
  const layout = mapOf(inputs.length);
  const name = outputs[output]?.name ?? '';
  const products = useGroups(table, output, groups);
  const gaps = useGaps(name, behaviour);
  const { editable, press, onKeyDown } = useMapHand({ behaviour, table, output }, layout);
  const [left, top] = [56, 40];
  const width = left + layout.columns * CELL + 8;
  const height = top + layout.lines * CELL + 8;
  return (
    <Flex flex="1" minH="0" gap="14px" px="12px" pb="8px">
      <Box flexShrink={0} h="100%" tabIndex={0} role="group" aria-label={`map of ${name}`} onKeyDown={onKeyDown}>
        <svg
          viewBox={`0 0 ${width} ${height}`}
          aria-hidden="true"
          style={{ height: '100%', maxHeight: 1.25 * height, maxWidth: 520 }}
        >
          <g transform={`translate(${left} ${top})`}>
            <MapCodes layout={layout} inputs={inputs} />
            {layout.cells.map(({ row, x, y }) => (
              // biome-ignore lint/a11y/noStaticElementInteractions: the map takes the keys for all of its cells
              <g key={row} onClick={() => press(row)} style={{ cursor: editable ? 'pointer' : 'default' }}>
                <MapCell x={x * CELL} y={y * CELL} row={row} mark={cellAt(table, output, row)} />
              </g>
            ))}
            {products.map((p, i) => (
              <Group key={`${p.care} ${p.value}`} layout={layout} product={p} index={i} />
            ))}
            {gaps.map((gap) => (
              <GapMarks key={gap.input} gap={gap} layout={layout} inputs={inputs} />
            ))}
          </g>
        </svg>
      </Box>
      <GroupList products={products} inputs={inputs}>
        {groups === 'ones'
          ? `${name} is the sum of these.`
          : `${name} is low in these: the product of their sums, literals inverted.`}
        {!editable && ' Its cells follow from the sheet.'}
        <GapLines gaps={gaps} name={name} />
      </GroupList>
    </Flex>
  );
}

/** What presses and keys do on the map of an output: look at a cell, and set it. */
function useMapHand({ behaviour, table, output }: Omit<MapDrawingProps, 'groups'>, { cells }: MapLayout) {
  const { job, session } = useJobView();
  const { inputs, outputs } = behaviour;
  const { row } = useDesignFocus();
  const name = outputs[output]?.name ?? '';
  const editable = useEditable(job.sheet, behaviour).has(name);
  const set = (r: number, mark: '0' | '1' | '-'): void => {
    if (editable && cellAt(table, output, r) !== mark)
      session.dispatch({
        kind: 'write-sheet',
        text: withCell(session.job.sheet, inputs, name, { table, output, row: r, mark }),
      });
  };
  const press = (r: number): void => {
    lookAt({ row: r, signal: name });
    set(r, next[cellAt(table, output, r)]);
  };
  useShortcuts('In the map', mapKeys);
  const onKeyDown = (e: KeyboardEvent): void => {
    const at = cells.find((c) => c.row === (row ?? 0)) ?? cells[0];
    const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
    if (step && at) {
      const near = (n: number) =>
        cells.find((c) => c.x === at.x + n * elementAt(step, 0) && c.y === at.y + n * elementAt(step, 1));
      const to = near(1) ?? near(2);
      if (to) lookAt({ row: to.row, signal: name });
    } else if (row !== null && (e.key === '0' || e.key === '1' || e.key === '-')) set(row, e.key);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return { editable, press, onKeyDown };
}

interface MapCellProps {
  readonly x: number;
  readonly y: number;
  readonly row: number;
  readonly mark: string;
}

function MapCell({ x, y, row, mark }: MapCellProps) {
  const { row: lookedAt } = useDesignFocus();
  return (
    <>
      <rect x={x} y={y} width={CELL} height={CELL} fill={colour('card')} stroke={colour('line')} />
      {row === lookedAt && <rect x={x + 2} y={y + 2} width={CELL - 4} height={CELL - 4} fill={colour('wash')} />}
      <SvgText x={x + CELL / 2} y={y + CELL / 2 + 5} size={15} fill={colour('ink')} weight={mark === '1' ? 600 : 400}>
        {mark}
      </SvgText>
      <SvgText x={x + CELL - 4} y={y + CELL - 3} size={8.5} fill={colour('soft')} anchor="end">
        {row}
      </SvgText>
    </>
  );
}

interface GroupListProps {
  readonly products: readonly Product[];
  readonly inputs: readonly string[];
  readonly children: ReactNode;
}

/** The groups as products, each with the colour of its outline, and what they make together. */
function GroupList({ products, inputs, children }: GroupListProps) {
  return (
    <Box
      overflowY="auto"
      flex="1"
      minW="0"
      fontFamily="mono"
      fontSize="13px"
      tabIndex={0}
      role="region"
      aria-label="groups"
    >
      {products.map((p, i) => (
        <Flex key={`${p.care} ${p.value}`} align="center" gap="8px" py="2px">
          <Box
            w="14px"
            h="14px"
            rounded="4px"
            borderWidth="2.5px"
            flexShrink={0}
            style={{ borderColor: groupColour(i) }}
          />
          <Text>{printExpr(exprOfCube(p, inputs), 'textbook')}</Text>
        </Flex>
      ))}
      {products.length === 0 && <Text color="soft">No groups: it is constant.</Text>}
      <Box pt="8px" color="soft" fontFamily="body" fontSize="12.5px">
        {children}
      </Box>
    </Box>
  );
}

/** The products of the smallest sum of an output's ones, or zeros. At most 64 rows: a moment's work. */
function useGroups(table: Table, output: number, groups: 'ones' | 'zeros'): readonly Product[] {
  const { data } = useQuery({
    queryKey: [
      'groups',
      groups,
      output,
      Array.from({ length: table.rows }, (_, r) => cellAt(table, output, r)).join(''),
    ],
    queryFn: async () => {
      const f = functionsOf(table, [output]);
      const off = offRows(elementAt(f.on, 0), elementAt(f.free, 0), f.inputs);
      return (await minimise(groups === 'ones' ? f : { ...f, on: [off] })).products;
    },
  });
  return data ?? [];
}

const groupColour = (i: number): string => onPaper(elementAt(palette, i % palette.length));

interface GroupProps {
  readonly layout: MapLayout;
  readonly product: Product;
  readonly index: number;
}

/** A group's outline, drawn a little inside its cells, each group by another margin so that none hides another. */
function Group({ layout, product, index }: GroupProps) {
  const inset = 3 + (index % 4) * 2.6;
  return (
    <g pointerEvents="none">
      {boxesOf(layout, product).map((b) => (
        <rect
          key={`${b.x} ${b.y}`}
          x={b.x * CELL + inset}
          y={b.y * CELL + inset}
          width={b.width * CELL - 2 * inset}
          height={b.height * CELL - 2 * inset}
          rx={8}
          fill={groupColour(index)}
          fillOpacity={0.1}
          stroke={groupColour(index)}
          strokeWidth={2.2}
        />
      ))}
    </g>
  );
}

/** Names and codes along the edges of each map. */
function MapCodes({ layout, inputs }: { readonly layout: MapLayout; readonly inputs: readonly string[] }) {
  const names = (list: readonly number[]): string => list.map((i) => inputs[i]).join(' ');
  const text = (code: number, bits: number): string => code.toString(2).padStart(bits, '0');
  return (
    <>
      <SvgText x={-6} y={-8} size={11} fill={colour('soft')} anchor="end" font="mono">
        {names(layout.lineInputs)}
      </SvgText>
      <SvgText x={0} y={-24} size={11} fill={colour('soft')} anchor="start" font="mono">
        {names(layout.columnInputs)}
      </SvgText>
      {layout.mapCodes.map((m, k) => {
        const own = layout.cells.slice(
          k * layout.lineCodes.length * layout.columnCodes.length,
          (k + 1) * layout.lineCodes.length * layout.columnCodes.length,
        );
        const [x0, y0] = [Math.min(...own.map((c) => c.x)), Math.min(...own.map((c) => c.y))];
        return (
          <g key={m} transform={`translate(${x0 * CELL} ${y0 * CELL})`}>
            {layout.columnCodes.map((c, x) => (
              <SvgText key={c} x={(x + 0.5) * CELL} y={-8} size={10.5} fill={colour('soft')} font="mono">
                {text(c, layout.columnInputs.length)}
              </SvgText>
            ))}
            {x0 === 0 &&
              layout.lineCodes.map((l, y) => (
                <SvgText
                  key={l}
                  x={-8}
                  y={(y + 0.5) * CELL + 4}
                  size={10.5}
                  fill={colour('soft')}
                  anchor="end"
                  font="mono"
                >
                  {text(l, layout.lineInputs.length)}
                </SvgText>
              ))}
            {layout.mapInputs.length > 0 && (
              <SvgText
                x={layout.columnCodes.length * CELL}
                y={-24}
                size={11}
                fill={colour('ink')}
                anchor="end"
                font="mono"
                weight={600}
              >
                {layout.mapInputs
                  .map((i, b) => `${inputs[i]}=${(m >> (layout.mapInputs.length - 1 - b)) & 1}`)
                  .join(' ')}
              </SvgText>
            )}
          </g>
        );
      })}
    </>
  );
}
