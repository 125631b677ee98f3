import { Box, Button, Flex, Input, Text } from '@chakra-ui/react';
import {
  choosable,
  type DrawerEntry,
  drawerFromCsv,
  drawerPart,
  drawerToCsv,
  findChip,
  partType,
} from '@saddlebag/core';
import { useState } from 'react';
import { useJobView } from '../base/job-context';
import { says } from '../base/words';
import { download } from '../kit/download';
import { tell } from '../kit/notices';
import { Empty, Panel } from '../kit/Panel';
import { PickFile } from '../kit/PickFile';
import { TipButton } from '../kit/Tip';
import { dropEntry, keepEntry, replaceDrawer } from '../store/drawer';

/** The most characters of a list that are read. */
const MAX_TEXT = 200_000;

interface DrawerPanelProps {
  readonly entries: readonly DrawerEntry[];
  readonly onClose: () => void;
}

/** What the lab has, for all jobs: parts with their counts and prices; and which chips this job may choose at all. */
export function DrawerPanel({ entries, onClose }: DrawerPanelProps) {
  const bring = async (chosen: File): Promise<void> => {
    if (chosen.size > MAX_TEXT) {
      tell(`That file is larger than the ${MAX_TEXT / 1000} kB that are read.`);
      return;
    }
    const read = drawerFromCsv(await chosen.text());
    if (read.entries.length === 0) {
      tell(read.findings.map(says).join(' ') || 'There is no part in that file.');
      return;
    }
    const before = await replaceDrawer(read.entries);
    const partly = read.findings.length > 0 ? ` Left out: ${read.findings.map(says).join(' ')}` : '';
    tell(`${read.entries.length} parts are in the drawer now.${partly}`, {
      label: 'Undo',
      onClick: () => void replaceDrawer(before),
    });
  };
  return (
    <Panel
      title="Drawer"
      hint="what the lab has, for all jobs"
      flex="1"
      actions={
        <>
          <PickFile
            says="Import CSV"
            label="a CSV list of parts"
            accept=".csv,text/csv"
            onPick={(file) => void bring(file)}
          />
          <Button
            disabled={entries.length === 0}
            onClick={() => download('drawer.csv', drawerToCsv(entries), 'text/csv')}
          >
            Export CSV
          </Button>
          <Button variant="solid" onClick={onClose}>
            Done
          </Button>
        </>
      }
    >
      <NewEntry entries={entries} />
      {entries.length === 0 && (
        <Empty>
          Nothing is listed yet. Add the chips of the lab with their counts: packing can then keep to them. Resistors
          and capacitors (10k, 100n) come first where values are worked out.
        </Empty>
      )}
      <Box overflowY="auto" flex="1" minH="0" px="14px" tabIndex={0} role="region" aria-label="parts in the drawer">
        <Box display="grid" gridTemplateColumns="repeat(auto-fill, minmax(330px, 1fr))" columnGap="24px">
          {entries.map((e) => (
            <EntryLine key={e.part} entry={e} />
          ))}
        </Box>
      </Box>
      <Allowed />
    </Panel>
  );
}

function NewEntry({ entries }: { readonly entries: readonly DrawerEntry[] }) {
  const [text, setText] = useState('');
  const [count, setCount] = useState('1');
  const [wrong, setWrong] = useState<string | null>(null);
  const add = (): void => {
    const part = drawerPart(text);
    if (part === null) {
      setWrong(
        `No part is known as ${text.trim() || 'nothing'}. Type a chip’s number, or a value such as 10k or 100n.`,
      );
      return;
    }
    const before = entries.find((e) => e.part === part);
    void keepEntry({ ...before, part, count: Math.min(9999, (before?.count ?? 0) + Math.max(0, Number(count) || 0)) });
    setText('');
    setWrong(null);
  };
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        add();
      }}
    >
      <Flex gap="8px" px="14px" pb="8px" align="center">
        <Field label="part number" value={text} width="150px" placeholder="74HC00 or 10k" onChange={setText} />
        <Text>×</Text>
        <Field label="how many" value={count} width="64px" onChange={setCount} />
        <Button type="submit">Add</Button>
        {wrong !== null && (
          <Text role="status" color="bad" fontSize="13px">
            {wrong}
          </Text>
        )}
      </Flex>
    </form>
  );
}

function EntryLine({ entry }: { readonly entry: DrawerEntry }) {
  const { part, count, price } = entry;
  const change = (next: Partial<DrawerEntry>): void => void keepEntry({ ...entry, ...next });
  return (
    <Flex align="center" gap="8px" py="4px" borderTopWidth="1px" borderColor="line">
      <Box flex="1" minW="0">
        <Text fontFamily="heading" fontWeight="600">
          {part}
        </Text>
        <Text fontSize="12px" color="soft" truncate>
          {partType(part)?.title}
        </Text>
      </Box>
      <Field
        label={`how many ${part}`}
        value={String(count)}
        width="58px"
        onChange={(v) => /^\d{0,4}$/.test(v) && change({ count: Number(v) })}
      />
      <PriceField part={part} price={price} onChange={(p) => change({ price: p })} />
      <Button
        variant="ghost"
        aria-label={`take ${part} out of the drawer`}
        onClick={() => {
          void dropEntry(part);
          tell(`${part} is out of the drawer.`, { label: 'Undo', onClick: () => void keepEntry(entry) });
        }}
      >
        ×
      </Button>
    </Flex>
  );
}

interface PriceFieldProps {
  readonly part: string;
  readonly price: number | undefined;
  readonly onChange: (price: number) => void;
}

/** A price as it is typed; kept once it is a number. */
function PriceField({ part, price, onChange }: PriceFieldProps) {
  const [text, setText] = useState(price === undefined ? '' : String(price));
  return (
    <Field
      label={`price of one ${part}`}
      value={text}
      width="64px"
      placeholder="price"
      onChange={(v) => {
        setText(v);
        if (v !== '' && Number(v) >= 0) onChange(Number(v));
      }}
    />
  );
}

interface FieldProps {
  readonly label: string;
  readonly value: string;
  readonly width: string;
  readonly placeholder?: string;
  readonly onChange: (value: string) => void;
}

function Field({ label, value, width, placeholder, onChange }: FieldProps) {
  return (
    <Input
      aria-label={label}
      value={value}
      placeholder={placeholder}
      maxLength={40}
      w={width}
      h="28px"
      size="sm"
      fontFamily="mono"
      bg="paper"
      borderColor="line"
      onChange={(e) => onChange(e.target.value)}
    />
  );
}

/** The chips that this job may choose; pressing one strikes it out. */
function Allowed() {
  const { job, session } = useJobView();
  const excluded = job.excluded ?? [];
  const toggle = (n: string): void => {
    session.dispatch({
      kind: 'exclude',
      chips: excluded.includes(n) ? excluded.filter((x) => x !== n) : [...excluded, n],
    });
  };
  return (
    <Box px="14px" py="10px" borderTopWidth="1px" borderColor="line" flexShrink={0}>
      <Text fontSize="13px" mb="6px">
        This job may choose among these; press one to exclude it:
      </Text>
      <Flex wrap="wrap" gap="5px">
        {choosable.map((n) => (
          <TipButton
            key={n}
            aria-pressed={!excluded.includes(n)}
            tip={findChip(n)?.title}
            opacity={excluded.includes(n) ? 0.55 : 1}
            textDecoration={excluded.includes(n) ? 'line-through' : undefined}
            onClick={() => toggle(n)}
          >
            {n}
          </TipButton>
        ))}
      </Flex>
    </Box>
  );
}
