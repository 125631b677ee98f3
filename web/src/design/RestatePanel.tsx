import { Box, Button, Flex, Text } from '@chakra-ui/react';
import { type Form, forms, type Restated, restatable, sizeOfSignals } from '@saddlebag/core';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useJobView } from '../base/job-context';
import { says } from '../base/words';
import { Choice } from '../kit/Choice';
import { useDesignFocus } from '../kit/design-focus';
import { tell } from '../kit/notices';
import { Empty } from '../kit/Panel';
import { runLong } from '../workers/stages';

const many = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;

/** Other forms of a signal, or of all: what each would take, and one press to have it on the sheet. */
export function RestatePanel() {
  const { reading, job } = useJobView();
  const names = useMemo(() => (reading?.design.netlist ? restatable(reading) : []), [reading]);
  const { signal } = useDesignFocus();
  const chips = useChips(names.length > 0 ? job.sheet : null);
  const [chosen, setChosen] = useState<string | null>(null);
  const picked = chosen !== null && (chosen === '' || names.includes(chosen)) ? chosen : (signal ?? '');
  const signals = picked !== '' && names.includes(picked) ? [picked] : names;
  if (!reading || names.length === 0)
    return <Empty>Write an equation or a table, and its other forms stand here.</Empty>;
  const now = sizeOfSignals(reading, signals);
  return (
    <Flex direction="column" flex="1" minH="0">
      <Flex align="center" gap="8px" px="12px" pb="6px" flexShrink={0}>
        <Text fontSize="13px">Put</Text>
        <Choice
          label="signal to restate"
          value={signals.length === 1 && names.length > 1 ? (signals[0] ?? '') : ''}
          width="150px"
          onChange={(value) => setChosen(value)}
        >
          <option value="">all signals</option>
          {names.map((name) => (
            <option key={name} value={name}>
              {name}
            </option>
          ))}
        </Choice>
        <Text fontSize="13px">into another form. Now:</Text>
        <Text fontFamily="mono" fontSize="12.5px">
          {many(now.gates, 'gate')}, {many(now.levels, 'level')}
          {chips === null ? '' : `, ${many(chips, 'chip')}`}
        </Text>
      </Flex>
      <Box
        as="ul"
        listStyleType="none"
        overflowY="auto"
        flex="1"
        minH="0"
        px="12px"
        pb="8px"
        tabIndex={0}
        role="list"
        aria-label="forms"
      >
        {forms.map(({ form, title }) => (
          <FormLine key={form} form={form} title={title} signals={signals} nowGates={now.gates} />
        ))}
      </Box>
    </Flex>
  );
}

/** The chips that a whole sheet takes, gate for gate; null until they are counted, or when it cannot be packed. */
function useChips(sheet: string | null): number | null {
  const { job } = useJobView();
  const { data } = useQuery({
    queryKey: ['chips', sheet, job.family],
    queryFn: ({ signal }) => runLong('chips', signal, (api) => api.countChips(sheet ?? '', job.family)),
    enabled: sheet !== null,
  });
  return data ?? null;
}

interface FormLineProps {
  readonly form: Form;
  readonly title: string;
  readonly signals: readonly string[];
  readonly nowGates: number;
}

function FormLine({ form, title, signals, nowGates }: FormLineProps) {
  const { job, session } = useJobView();
  const { data, isFetching } = useQuery({
    queryKey: ['restate', job.sheet, signals, form],
    queryFn: ({ signal }) => runLong('restate', signal, (api) => api.restate(job.sheet, signals, form)),
  });
  const made = data?.restated;
  const chips = useChips(made?.text ?? null);
  const take = (): void => {
    // What has been typed since is not in it: the form is about to be worked out again.
    if (!made || session.job.sheet !== job.sheet) return;
    session.dispatch({ kind: 'write-sheet', text: made.text });
    tell(`${signals.join(', ')}: ${title}. Undo brings the old form back.`);
  };
  return (
    <Flex as="li" gap="10px" py="5px" borderTopWidth="1px" borderColor="line" align="flex-start">
      <Box w="178px" flexShrink={0}>
        <Text fontWeight="600" fontSize="13px">
          {title}
        </Text>
        <Text fontSize="12px" color={made && made.size.gates < nowGates ? 'ok' : 'soft'}>
          {made
            ? `${many(made.size.gates, 'gate')}, ${many(made.size.levels, 'level')}${chips === null ? '' : `, ${many(chips, 'chip')} in all`}`
            : isFetching
              ? 'working …'
              : ''}
          {made && claim(made)}
        </Text>
      </Box>
      <Box flex="1" minW="0" fontFamily="mono" fontSize="12.5px" lineHeight="1.5">
        {made?.lines.map((line) => (
          <Text key={line} truncate title={line}>
            {line}
          </Text>
        ))}
        {data?.findings.map((f) => (
          <Text key={says(f)} color="soft" fontFamily="body">
            {says(f)}
          </Text>
        ))}
      </Box>
      <Button disabled={!made || made.text === job.sheet} onClick={take} aria-label={`use the form ${title}`}>
        Use
      </Button>
    </Flex>
  );
}

/** What is known of a form's size. */
function claim({ proved }: Restated): string {
  return proved ? ' · proved smallest' : ' · not proved smallest';
}
