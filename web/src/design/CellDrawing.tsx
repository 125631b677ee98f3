import { colour } from '../base/colours';
import { followProps, useFollowed } from '../kit/follow';
import { SvgText } from '../kit/SvgText';
import type { DrawnNode } from './layout';

/** A flip-flop, latch, shared wire or used part as a box: its name at the top, its pins at its sides, a wedge at a clock, a ring where the falling edge counts. */
export function CellDrawing({ node }: { readonly node: DrawnNode }) {
  const followed = useFollowed();
  const { x, y, width, height, pins, ports, label } = node;
  if (!pins) return null;
  const lit = followed === node.net;
  return (
    <g data-node={node.id} {...followProps(node.net)}>
      <title>{label}</title>
      <rect
        x={x}
        y={y}
        width={width}
        height={height}
        rx={4}
        fill={lit ? colour('lit') : '#FFFDF6'}
        stroke={colour('boneLine')}
        strokeWidth={1.8}
      />
      <SvgText x={x + width / 2} y={y + 16} size={12.5} fill="#20302B" font="heading" weight={600}>
        {label}
      </SvgText>
      {pins.left.map((pin, k) => {
        const at = ports[k];
        if (!at) return null;
        return (
          <g key={`${pin.name} ${at.y}`}>
            {pin.clock && <path d={`M${x},${at.y - 5} l8,5 l-8,5`} fill="none" stroke="#20302B" strokeWidth={1.4} />}
            {pin.ring && <circle cx={x - 4} cy={at.y} r={3.4} fill="#FFFDF6" stroke="#20302B" strokeWidth={1.4} />}
            <SvgText x={x + 6} y={at.y + 4} size={11} fill="#20302B" anchor="start" font="mono">
              {pin.name}
            </SvgText>
          </g>
        );
      })}
      {pins.right.map((pin, k) => {
        const at = ports[pins.left.length + k];
        if (!at) return null;
        return (
          <SvgText
            key={`${pin.name} ${at.y}`}
            x={x + width - 6}
            y={at.y + 4}
            size={11}
            fill="#20302B"
            anchor="end"
            font="mono"
          >
            {pin.name}
          </SvgText>
        );
      })}
    </g>
  );
}
