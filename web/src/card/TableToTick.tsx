import { Box, Heading } from '@chakra-ui/react';
import { type Behaviour, cellAt, inputAt, tableOf } from '@saddlebag/core';

/** Longer tables are walked on the screen. */
const MOST_INPUTS = 6;

/** The truth table with a box for each row, to be ticked off on the bench; nothing where it is too long, or something is stored. */
export function TableToTick({ behaviour }: { readonly behaviour: Behaviour }) {
  const { inputs, outputs, stored } = behaviour;
  if (inputs.length === 0 || inputs.length > MOST_INPUTS || stored.length > 0) return null;
  const table = tableOf(behaviour);
  return (
    <Box breakBefore="auto">
      <Heading as="h2" fontFamily="heading" fontSize="18px" mt="14px" mb="6px" breakAfter="avoid">
        Rows to try
      </Heading>
      <Box css={rows}>
        <table>
          <thead>
            <tr>
              <th />
              {[...inputs, '', ...outputs.map((o) => o.name)].map((name) => (
                <th key={name}>{name}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {Array.from({ length: table.rows }, (_, row) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a row is its number
              <tr key={row}>
                <td>☐</td>
                {inputs.map((name, i) => (
                  <td key={name}>{inputAt(inputs.length, i, row)}</td>
                ))}
                <td />
                {outputs.map(({ name }, o) => (
                  <td key={name}>
                    <b>{cellAt(table, o, row)}</b>
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </Box>
    </Box>
  );
}

const rows = {
  '& td, & th': { padding: '0 9px', textAlign: 'center', fontFamily: 'mono', fontSize: '12px' },
  '& tr': { breakInside: 'avoid', borderTopWidth: '1px', borderColor: 'line' },
} as const;
