import { Button } from '@chakra-ui/react';
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

const tools = [
  { id: 'table', title: 'Truth table' },
  { id: 'map', title: 'Map' },
  { id: 'restate', title: 'Restate' },
  { id: 'compare', title: 'Compare' },
] as const;
type Tool = (typeof tools)[number]['id'];

/** What can be seen and done of the function below its gates: table or states, map, other forms, comparison. */
export const ToolsPanel = memo(function ToolsPanel({ behaviour }: { readonly behaviour: Behaviour | null }) {
  const [tool, setTool] = useState<Tool>('table');
  const stores = behaviour !== null && behaviour.stored.length > 0;
  const ready = behaviour !== null && behaviour.outputs.length > 0 ? behaviour : null;
  return (
    <Panel
      title={tool === 'table' ? (stores ? 'States' : 'Truth table') : tools.find((t) => t.id === tool)?.title}
      hint={tool === 'table' && ready && !stores ? `${2 ** ready.inputs.length} rows` : undefined}
      flex={tool === 'table' ? '1' : '1.2'}
      actions={
        <>
          {tool === 'table' && ready && hasTable(ready) && <TakeTable behaviour={ready} />}
          {tools.map(({ id, title }) => (
            <Button key={id} aria-pressed={tool === id} onClick={() => setTool(id)}>
              {id === 'table' && stores ? 'States' : title}
            </Button>
          ))}
        </>
      }
    >
      {!ready && <Empty>One row for every setting of the inputs.</Empty>}
      {ready && tool === 'table' && (stores ? <StatesPanel behaviour={ready} /> : <TruthTable behaviour={ready} />)}
      {ready && tool === 'map' && <MapPanel behaviour={ready} />}
      {ready && tool === 'restate' && <RestatePanel />}
      {ready && tool === 'compare' && <ComparePanel />}
    </Panel>
  );
});

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
