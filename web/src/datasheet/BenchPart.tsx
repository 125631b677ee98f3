import { Box, Text } from '@chakra-ui/react';
import type { PartType } from '@saddlebag/core';
import { colour } from '../base/colours';
import { SvgText } from '../kit/SvgText';

const PITCH = 34;

/** A part that is no chip: its outline over the holes it takes, each lead with its number and name. */
export function BenchPart({ type }: { readonly type: PartType }) {
  const { body, pins } = type;
  const x0 = Math.min(body.x, ...pins.map((p) => p.dx)) - 0.8;
  const y0 = Math.min(body.y, ...pins.map((p) => p.dy)) - 0.8;
  const x1 = Math.max(body.x + body.width, ...pins.map((p) => p.dx)) + 0.8;
  const y1 = Math.max(body.y + body.height, ...pins.map((p) => p.dy)) + 0.8;
  const at = (v: number, from: number): number => (v - from) * PITCH;
  return (
    <>
      <svg
        viewBox={`0 0 ${at(x1, x0)} ${at(y1, y0)}`}
        role="img"
        aria-label={`${type.title} over its holes`}
        style={{ display: 'block', width: '100%', maxWidth: at(x1, x0), maxHeight: 230 }}
      >
        <rect
          x={at(body.x, x0)}
          y={at(body.y, y0)}
          width={body.width * PITCH}
          height={body.height * PITCH}
          rx={6}
          fill={colour('bone')}
          stroke={colour('boneLine')}
          strokeWidth={1.8}
        />
        {pins.map((p) => (
          <g key={p.id}>
            <circle cx={at(p.dx, x0)} cy={at(p.dy, y0)} r={9} fill="#B0B1A8" stroke={colour('boneLine')} />
            <SvgText x={at(p.dx, x0)} y={at(p.dy, y0) + 4} size={10.5} fill="#14201B" weight={600}>
              {p.id}
            </SvgText>
          </g>
        ))}
      </svg>
      <Box
        as="ol"
        listStyleType="none"
        pt="8px"
        fontSize="13px"
        columnGap="18px"
        style={{ columns: pins.length > 5 ? 3 : 1 }}
      >
        {pins.map((p) => (
          <Box as="li" key={p.id} display="flex" gap="8px">
            <Text as="span" fontFamily="mono" w="24px" textAlign="right">
              {p.id}
            </Text>
            {p.name}
          </Box>
        ))}
      </Box>
    </>
  );
}
