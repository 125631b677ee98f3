import { Button, Tabs } from '@chakra-ui/react';
import { type Behaviour, tableToCsv } from '@saddlebag/core';
import { memo, useState } from 'react';
import { useJobView } from '../base/job-context';
import { hasTable, useTable } from '../base/use-table';
import { download, fileName } from '../kit/download';
import { Empty, Panel } from '../kit/Panel';
import { ComparePanel } from './ComparePanel';
import { MapPanel } from './MapPanel';
import { RestatePanel } from './RestatePanel';
import { StatesPanel } from './StatesPanel';
import { TruthTable } from './TruthTable';

const tools = { table: 'Truth table', map: 'Map', restate: 'Restate', compare: 'Compare' } as const;
type Tool = keyof typeof tools;
const toolIds = Object.keys(tools) as readonly Tool[];

/** What can be seen and done of the function below its gates: table or states, map, other forms, comparison. */
export const ToolsPanel = memo(function ToolsPanel({ behaviour }: { readonly behaviour: Behaviour | null }) {
  const [tool, setTool] = useState<Tool>('table');
  const stores = behaviour !== null && behaviour.stored.length > 0;
  const ready = behaviour !== null && behaviour.outputs.length > 0 ? behaviour : null;
  const titleOf = (id: Tool): string => (id === 'table' && stores ? 'States' : tools[id]);
  return (
    <Tabs.Root display="contents" value={tool} onValueChange={(e) => setTool(e.value as Tool)} lazyMount unmountOnExit>
      <Panel
        title={titleOf(tool)}
        hint={tool === 'table' && ready && !stores ? `${2 ** ready.inputs.length} rows` : undefined}
        flex={tool === 'table' ? '1' : '1.2'}
        actions={
          <>
            {tool === 'table' && ready && hasTable(ready) && <TakeTable behaviour={ready} />}
            <Tabs.List display="flex" gap="8px">
              {toolIds.map((id) => (
                <Tabs.Trigger key={id} value={id} asChild>
                  <Button _selected={{ bg: 'moss', color: 'onMoss', borderColor: 'moss' }}>{titleOf(id)}</Button>
                </Tabs.Trigger>
              ))}
            </Tabs.List>
          </>
        }
      >
        {toolIds.map((id) => (
          <Tabs.Content key={id} value={id} display="flex" _hidden={{ display: 'none' }} {...filling}>
            {ready ? <Inside tool={id} behaviour={ready} /> : <Empty>One row for every setting of the inputs.</Empty>}
          </Tabs.Content>
        ))}
      </Panel>
    </Tabs.Root>
  );
});

const filling = { flexDirection: 'column', flex: '1', minH: '0' } as const;

function Inside({ tool, behaviour }: { readonly tool: Tool; readonly behaviour: Behaviour }) {
  if (tool === 'map') return <MapPanel behaviour={behaviour} />;
  if (tool === 'restate') return <RestatePanel />;
  if (tool === 'compare') return <ComparePanel />;
  return behaviour.stored.length > 0 ? <StatesPanel behaviour={behaviour} /> : <TruthTable behaviour={behaviour} />;
}

/** Hands the table out as CSV. */
function TakeTable({ behaviour }: { readonly behaviour: Behaviour }) {
  const { job } = useJobView();
  const table = useTable(behaviour);
  const take = (): void => {
    const outputs = behaviour.outputs.map((o) => o.name);
    if (table) download(fileName(job.name, '.csv'), tableToCsv(behaviour.inputs, outputs, table), 'text/csv');
  };
  return (
    <Button disabled={!table} onClick={take}>
      CSV
    </Button>
  );
}
