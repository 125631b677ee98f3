import { Box, Flex, Text } from '@chakra-ui/react';
import {
  type Behaviour,
  type Hazard,
  hazardsOf,
  printExpr,
  readExpression,
  registered,
  withProduct,
} from '@saddlebag/core';
import { useMemo } from 'react';
import { colour } from '../base/colours';
import { useJobView } from '../base/job-context';
import { fixed } from '../base/numbers';
import { TipButton } from '../kit/Tip';
import { CELL, type MapLayout, seamsOf } from './map';

const none: readonly Hazard[] = [];

/** The pulses that an output may give where it should stay: gaps between groups, where one lets go before the next takes hold. */
export function useGaps(name: string, behaviour: Behaviour): readonly Hazard[] {
  const { job, packing } = useJobView();
  const found = useMemo(
    () => hazardsOf({ behaviour }, job.family, packing)?.hazards ?? none,
    [behaviour, job.family, packing],
  );
  return useMemo(() => found.filter((h) => h.output === name && h.kind !== 'dynamic'), [found, name]);
}

interface GapMarksProps {
  readonly gap: Hazard;
  readonly layout: MapLayout;
  readonly inputs: readonly string[];
}

/** The seams that a change of an input crosses without a group over it. */
export function GapMarks({ gap: { rows, input }, layout, inputs }: GapMarksProps) {
  const i = inputs.indexOf(input);
  const seams = new Map(
    rows.flatMap((row) => seamsOf(layout, row, i)).map((s) => [`${s.x1} ${s.y1} ${s.x2} ${s.y2}`, s]),
  );
  return [...seams].map(([key, { x1, y1, x2, y2 }]) => {
    // A little shorter than the cell, so that seams that meet are told apart.
    const [dx, dy] = [x1 === x2 ? 0 : 7, y1 === y2 ? 0 : 7];
    return (
      <line
        key={key}
        data-gap={input}
        x1={x1 * CELL + dx}
        y1={y1 * CELL + dy}
        x2={x2 * CELL - dx}
        y2={y2 * CELL - dy}
        stroke={colour('bad')}
        strokeWidth={5}
        strokeLinecap="round"
        pointerEvents="none"
      />
    );
  });
}

/** Each gap in words, with a press that closes it: one product more, or the signal taken from a flip-flop. */
export function GapLines({ gaps, name }: { readonly gaps: readonly Hazard[]; readonly name: string }) {
  const { job, session } = useJobView();
  const flipFlop = useMemo(() => registered(job.sheet, name), [job.sheet, name]);
  return gaps.map(({ input, kind, count, widthNs, remedy }, i) => {
    const isFirst = i === 0;
    const text = remedy === null ? null : withProduct(job.sheet, name, remedy);
    const { expr } = readExpression(remedy ?? '');
    return (
      <Flex key={`${input} ${kind}`} pt="8px" gap="8px" align="center" color="ink" role="note">
        <Box w="14px" h="5px" rounded="3px" bg="bad" flexShrink={0} />
        <Text flex="1">
          When {input} changes ({count === 2 ? 'one place' : `${count / 2} places`}), {name} should stay{' '}
          {kind === 'static-1' ? 'high and may fall' : 'low and may rise'} for up to {fixed(widthNs, 0)} ns.
        </Text>
        {isFirst && flipFlop && (
          <TipButton
            tip={`${name} then changes with ${flipFlop.clock} alone, and what passes between two of its edges is not seen`}
            onClick={() => session.dispatch({ kind: 'write-sheet', text: flipFlop.text })}
          >
            From a flip-flop
          </TipButton>
        )}
        {text !== null && expr && (
          <TipButton
            tip="a group across the gap: it holds while the others change over"
            onClick={() => session.dispatch({ kind: 'write-sheet', text })}
          >
            Add {printExpr(expr, 'textbook')}
          </TipButton>
        )}
      </Flex>
    );
  });
}
