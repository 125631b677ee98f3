import { Box } from '@chakra-ui/react';
import { type Behaviour, fingerprint, type GateKind, levelsInRow, type Netlist } from '@saddlebag/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { memo, useDeferredValue, useMemo } from 'react';
import { colour } from '../base/colours';
import { type Colours, onPaper } from '../base/palette';
import { useSettings } from '../base/settings';
import { lookAt, useDesignFocus } from '../kit/design-focus';
import { followProps, pin, useFollowed } from '../kit/follow';
import { GateSymbol, SYMBOL } from '../kit/GateSymbol';
import { Empty } from '../kit/Panel';
import { SvgText } from '../kit/SvgText';
import { TAG_INK } from '../kit/Tag';
import { useGrowingCount } from '../kit/use-growing-count';
import { CellDrawing } from './CellDrawing';
import { GateBar } from './GateBar';
import { type Diagram, type DrawnLine, type DrawnNode, MAX_DRAWN_GATES } from './layout';
import { useWireDrag } from './use-wire-drag';
import type { WireDrag } from './wire-drag';

interface GateDiagramProps {
  readonly netlist: Netlist;
  readonly colours: Colours;
  /** What the design does: lights the levels of the row looked at. */
  readonly behaviour: Behaviour | null;
}

/** Levels by net; null while no row is looked at. */
type Levels = ReadonlyMap<string, 0 | 1> | null;

/** The gates of the design, drawn from the sheet; with a row of the table chosen, lit as that row sets them. */
export const GateDiagram = memo(function GateDiagram({ netlist, colours, behaviour }: GateDiagramProps) {
  const { row } = useDesignFocus();
  const levels = useMemo<Levels>(() => {
    if (row === null || !behaviour || behaviour.stored.length > 0 || row >= 2 ** behaviour.inputs.length) return null;
    return levelsInRow(behaviour, row);
  }, [behaviour, row]);
  const tooMany = netlist.gates.length > MAX_DRAWN_GATES;
  const laid = useQuery({
    queryKey: ['diagram', fingerprint(netlist)],
    queryFn: async ({ signal }) => (await import('./elk')).layOutGates(netlist, signal),
    enabled: !tooMany,
    placeholderData: keepPreviousData,
  });
  // A new diagram is drawn beside what else goes on: it takes more than a frame.
  const diagram = useDeferredValue(laid.data);
  if (tooMany)
    return (
      <Empty>
        {netlist.gates.length} gates are too many for a drawing that anybody could read. Table, packing and board work
        all the same.
      </Empty>
    );
  if (laid.isError) return <Empty>The drawing could not be laid out: {laid.error.message}</Empty>;
  if (!diagram) return <Empty>Drawing …</Empty>;
  return <Drawing diagram={diagram} colours={colours} levels={levels} />;
});

interface DrawingProps {
  readonly diagram: Diagram;
  readonly colours: Colours;
  readonly levels: Levels;
}

/** Gates, and lines, that are drawn at once; of more the rest follows. */
const AT_ONCE = { first: 36, more: 60 } as const;

function Drawing({ diagram, colours, levels }: DrawingProps) {
  const { height, nodes, lines } = diagram;
  const { svg, drag, handlers } = useWireDrag(nodes);
  const gates = useGrowingCount(nodes.length, AT_ONCE);
  const drawn = useGrowingCount(lines.length, AT_ONCE);
  // Levels stand outside the tags.
  const margin = levels ? 16 : 0;
  const width = diagram.width + 2 * margin;
  return (
    <>
      <Box flex="1" minH="0" overflow="auto" p="6px" display="flex">
        <svg
          viewBox={`${-margin} 0 ${width} ${height}`}
          aria-label="gate diagram"
          ref={svg}
          {...handlers}
          style={{
            touchAction: 'none',
            userSelect: 'none',
            margin: 'auto',
            width: '100%',
            height: '100%',
            maxWidth: 1.7 * width,
            maxHeight: 1.7 * height,
            minWidth: Math.min(width, 0.55 * width + 200),
            flexShrink: 0,
          }}
        >
          {lines.slice(0, drawn).map((line) => (
            <Line key={line.id} line={line} colours={colours} level={levels?.get(line.net)} />
          ))}
          {nodes.slice(0, gates).map((node) => (
            <Node key={node.id} node={node} colours={colours} levels={levels} />
          ))}
          {drag && <DrawnWire drag={drag} colours={colours} />}
        </svg>
      </Box>
      <GateBar />
    </>
  );
}

/** The line that is being drawn, and what letting go would do. */
function DrawnWire({ drag, colours }: { readonly drag: WireDrag; readonly colours: Colours }) {
  const { net, from, drop } = drag;
  const to = drop?.at ?? drag.to;
  return (
    <g pointerEvents="none">
      <path
        d={`M${from.x},${from.y} L${to.x},${to.y}`}
        fill="none"
        stroke={onPaper(colours.of(net) ?? '#8A8F8A')}
        strokeWidth={3}
        strokeDasharray={drop ? undefined : '6 5'}
        strokeLinecap="round"
      />
      <circle cx={to.x} cy={to.y} r={4} fill={colour(drop ? 'moss' : 'soft')} />
      {drop && (
        <SvgText x={to.x - 6} y={to.y - 9} size={11.5} fill={colour('ink')} anchor="end" weight={600}>
          {drop.says}
        </SvgText>
      )}
    </g>
  );
}

interface LineProps {
  readonly line: DrawnLine;
  readonly colours: Colours;
  readonly level: 0 | 1 | undefined;
}

const Line = memo(function Line({ line, colours, level }: LineProps) {
  const followed = useFollowed();
  const stroke = onPaper(colours.of(line.net) ?? '#8A8F8A');
  const lit = followed === line.net;
  const d = line.corners.map((p, i) => `${i === 0 ? 'M' : 'L'}${p.x},${p.y}`).join('');
  return (
    <g opacity={followed !== null && !lit ? 0.25 : 1} {...followProps(line.net)}>
      <path d={d} fill="none" stroke="transparent" strokeWidth={9} />
      <path
        d={d}
        fill="none"
        stroke={stroke}
        strokeWidth={lit || level === 1 ? 3.4 : 2}
        strokeDasharray={level === 0 ? '5 4' : undefined}
        strokeLinejoin="round"
      />
      {line.dots.map((p) => (
        <circle key={`${p.x},${p.y}`} cx={p.x} cy={p.y} r={3.2} fill={colour('ink')} />
      ))}
    </g>
  );
});

interface NodeProps {
  readonly node: DrawnNode;
  readonly colours: Colours;
  readonly levels: Levels;
}

const Node = memo(function Node({ node, colours, levels }: NodeProps) {
  if (node.kind === 'input' || node.kind === 'output' || node.kind === 'constant')
    return <NetTag node={node} colours={colours} level={levels?.get(node.net)} />;
  return node.kind === 'cell' ? <CellDrawing node={node} /> : <GateNode node={node} levels={levels} kind={node.kind} />;
});

interface GateNodeProps extends Pick<NodeProps, 'node' | 'levels'> {
  readonly kind: GateKind;
}

/** A gate of the diagram, which can be chosen. */
function GateNode({ node, levels, kind }: GateNodeProps) {
  const { symbols } = useSettings();
  const followed = useFollowed();
  const { gate } = useDesignFocus();
  const lit = levels ? levels.get(node.net) === 1 : followed === node.net;
  const [, ...inputs] = node.ports;
  const isChosen = gate === node.net;
  const choose = (): void => lookAt({ gate: isChosen ? null : node.net });
  return (
    // biome-ignore lint/a11y/useSemanticElements: an SVG group cannot be a button element
    <g
      role="button"
      tabIndex={0}
      data-node={node.id}
      aria-label={`${kind} gate ${node.net}`}
      aria-pressed={isChosen}
      style={{ cursor: 'pointer' }}
      onClick={choose}
      onKeyDown={(e) => {
        if (e.key === 'Enter') choose();
      }}
      {...followProps(node.net)}
    >
      {isChosen && <ChosenFrame node={node} />}
      <title>{`${kind} · ${inputs.length} ${inputs.length === 1 ? 'input' : 'inputs'} · ${node.net} = ${node.label}`}</title>
      {inputs.map(({ x, y }) => (
        <line key={y} x1={x - 6} y1={y} x2={x + 8} y2={y} stroke={colour('ink')} strokeWidth={1.2} opacity={0.5} />
      ))}
      <g transform={`translate(${node.x} ${node.y}) scale(1 ${node.height / SYMBOL.height})`}>
        <GateSymbol kind={kind} form={symbols} lit={lit} stroke={1.8} />
      </g>
    </g>
  );
}

function ChosenFrame({ node: { x, y, width, height } }: Pick<NodeProps, 'node'>) {
  return (
    <rect
      x={x - 4}
      y={y - 4}
      width={width + 8}
      height={height + 8}
      rx={6}
      fill={colour('wash')}
      stroke={colour('moss')}
      strokeWidth={2}
    />
  );
}

function NetTag({ node, colours, level }: Pick<NodeProps, 'node' | 'colours'> & { readonly level: 0 | 1 | undefined }) {
  const { x, y, width: w, height: h } = node;
  const fill = colours.of(node.kind === 'output' ? node.label : node.net) ?? '#8A8F8A';
  const outline =
    node.kind === 'output'
      ? `M${x},${y + h / 2} l7,${-h / 2} H${x + w} V${y + h} H${x + 7} Z`
      : `M${x},${y} H${x + w - 7} l7,${h / 2} l-7,${h / 2} H${x} Z`;
  return (
    // biome-ignore lint/a11y/useSemanticElements: an SVG group cannot be a button element
    <g
      role="button"
      tabIndex={0}
      data-node={node.id}
      aria-label={`follow ${node.label}`}
      style={{ cursor: 'pointer' }}
      onClick={() => pin(node.net)}
      onKeyDown={(e) => e.key === 'Enter' && pin(node.net)}
      {...followProps(node.net)}
    >
      <path d={outline} fill={fill} />
      <SvgText
        x={x + w / 2 + (node.kind === 'output' ? 3 : -3)}
        y={y + h / 2 + 4.4}
        size={12.5}
        fill={node.kind === 'constant' ? '#FFFFFF' : TAG_INK}
        weight={600}
      >
        {node.label}
      </SvgText>
      {level !== undefined && (
        <SvgText
          x={node.kind === 'output' ? x + w + 4 : x - 4}
          y={y + h / 2 + 4.4}
          size={12.5}
          fill={colour('ink')}
          anchor={node.kind === 'output' ? 'start' : 'end'}
          font="mono"
          weight={600}
        >
          {level}
        </SvgText>
      )}
    </g>
  );
}
