import { Box } from '@chakra-ui/react';
import { type BuildCard, type PlannedTour, shownWord } from '@saddlebag/core';
import { inOwnMarks } from '../base/numbers';
import { Panel } from '../kit/Panel';
import { useGrowingCount } from '../kit/use-growing-count';

/** The parts list, the pin list and the tour of a clocked design, side by side. */
export function Lists({ card }: { readonly card: BuildCard }) {
  return (
    <>
      <Panel title="Parts" flex="1">
        <Box overflowY="auto" px="12px" pb="8px" tabIndex={0} role="region" aria-label="parts list">
          <PartsTable card={card} />
        </Box>
      </Panel>
      <Panel title="Pins" hint="what each pin carries" flex="1.2">
        <Box overflowY="auto" px="12px" pb="8px" tabIndex={0} role="region" aria-label="pin list">
          <PinTables card={card} />
        </Box>
      </Panel>
      {card.tour && (
        <Panel title="Tour" hint="every state, by presses" flex="1">
          <Box overflowY="auto" px="12px" pb="8px" tabIndex={0} role="region" aria-label="tour of the states">
            <TourTable tour={card.tour} />
          </Box>
        </Panel>
      )}
    </>
  );
}

/** The presses of a tour, each with what must be seen after it, and on paper with a box to tick. */
export function TourTable({ tour, isPaper = false }: { readonly tour: PlannedTour; readonly isPaper?: boolean }) {
  const { outputs, toStart, steps, more } = tour;
  return (
    <Box css={tables}>
      <p>
        {toStart
          ? `Power up, then press ${toStart.join(', ') || 'nothing'}.`
          : 'Begin with all that is stored cleared.'}
      </p>
      <table>
        <tbody>
          <tr>
            <td />
            <td>press</td>
            <td>{outputs.join(' ')}</td>
          </tr>
          {steps.map(({ press, wanted }, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: presses have nothing but their order
            <tr key={i}>
              <td>
                {isPaper && '☐ '}
                {i + 1}
              </td>
              <td>{press}</td>
              <td>{shownWord(wanted)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {more > 0 && <p>and {more} more presses</p>}
    </Box>
  );
}

/** Rows are plain elements, styled from here: a job has a thousand pins. */
const tables = {
  '& table': { width: '100%', fontSize: '13px' },
  '& tr': { borderTopWidth: '1px', borderColor: 'line' },
  '& td': { paddingRight: '8px', verticalAlign: 'top' },
  '& td:first-of-type': { textAlign: 'right', fontFamily: 'mono' },
  '& td:last-of-type': { color: 'soft', fontFamily: 'mono', fontSize: '12px', paddingRight: 0 },
} as const;

/** The parts of a job with their counts, as they are laid out before building. */
export function PartsTable({ card }: { readonly card: BuildCard }) {
  return (
    <Box css={tables}>
      <table>
        <tbody>
          {card.parts.map(({ count, what, refs, beside }) => (
            <tr key={what}>
              <td>{count}</td>
              <td>{inOwnMarks(what)}</td>
              <td>{beside ?? refs.join(' ')}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Box>
  );
}

const pinLists = {
  display: 'flex',
  flexWrap: 'wrap',
  gap: '10px 26px',
  '& section': { width: '210px', breakInside: 'avoid' },
  '& h3': { fontFamily: 'heading', fontWeight: '600' },
  '& ol': {
    columnCount: 2,
    columnGap: '12px',
    fontFamily: 'mono',
    fontSize: '12px',
    lineHeight: '17px',
    listStyleType: 'none',
  },
  '& li': { display: 'flex', gap: '6px', breakInside: 'avoid' },
  '& span': { width: '16px', textAlign: 'right' },
  '& i': { width: '26px', color: 'soft', fontStyle: 'normal' },
  '& b': { fontWeight: '600', overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' },
} as const;

/** Chips whose pins are listed at once; the others follow, out of sight. */
const AT_ONCE = { first: 8, more: 12 } as const;

/** For each chip its pins with what they carry and the holes they are in; all of them at once on paper. */
export function PinTables({ card, isWhole = false }: { readonly card: BuildCard; readonly isWhole?: boolean }) {
  const shown = useGrowingCount(card.pins.length, AT_ONCE);
  return (
    <Box css={pinLists}>
      {card.pins.slice(0, isWhole ? undefined : shown).map(({ ref, part, pins }) => (
        <section key={ref}>
          <h3>
            {ref} {part}
          </h3>
          <ol>
            {pins.map(({ id, name, carries }) => (
              <li key={id}>
                <span>{id}</span>
                <i>{name}</i>
                <b>{carries}</b>
              </li>
            ))}
          </ol>
        </section>
      ))}
    </Box>
  );
}
