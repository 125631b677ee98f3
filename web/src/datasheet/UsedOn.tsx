import { Box, Text } from '@chakra-ui/react';
import { elementAt, type PartType, partType } from '@saddlebag/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { Link } from 'react-router';
import { shelf } from '../store/shelf';
import { Section } from './Section';

/** Which boards of the shelf have the part. */
export function UsedOn({ type }: { readonly type: PartType }) {
  const jobs = useLiveQuery(() => shelf.list());
  const using = jobs?.filter((row) => uses(row.text, type)) ?? [];
  return (
    <Section title="On the shelf">
      {using.length === 0 && <Text color="soft">No job’s board has one.</Text>}
      <Box as="ul" listStyleType="none">
        {using.map((row) => (
          <Box as="li" key={row.id}>
            <Link to={`/job/${row.id}/board`} style={{ textDecoration: 'underline' }}>
              {row.name}
            </Link>
          </Box>
        ))}
      </Box>
    </Section>
  );
}

/** Whether a job file has a part on its board or in its packing. */
function uses(text: string, type: PartType): boolean {
  return type.own === undefined ? partsIn(text).has(type.id) : text.includes(JSON.stringify(type.own));
}

/** The catalogue ids of the parts that a job file names. */
function partsIn(text: string): ReadonlySet<string> {
  const numbers = new Set([...text.matchAll(/"part":\s*"([^"]{1,40})"/g)].map((m) => elementAt(m, 1)));
  return new Set([...numbers].flatMap((n) => partType(n)?.id ?? []));
}
