import { Button, Flex } from '@chakra-ui/react';
import { applyEdit, canTry, isError, layOut, type Netlist, noRules, type PartType, tryPart } from '@saddlebag/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { says } from '../base/words';
import { Choice } from '../kit/Choice';
import { tell } from '../kit/notices';
import { shelf } from '../store/shelf';
import { runLong, stages } from '../workers/stages';

/** One press from a datasheet to a job with the chip seated, powered, and wired to switches and LEDs. */
export function TryChip({ type }: { readonly type: PartType }) {
  const navigate = useNavigate();
  const [unit, setUnit] = useState('1');
  const [busy, setBusy] = useState(false);
  if (!canTry(type)) return null;
  const start = async (): Promise<void> => {
    setBusy(true);
    try {
      const id = await jobFor(type, unit === '' || type.units.length === 1 ? [] : [Number(unit)]);
      await navigate(`/job/${id}/power`);
    } catch (e) {
      tell(`The job could not be made: ${e instanceof Error ? e.message : String(e)}`);
      setBusy(false);
    }
  };
  return (
    <Flex gap="6px">
      {type.units.length > 1 && (
        <Choice label="units to try" value={unit} width="112px" onChange={(value) => setUnit(value)}>
          {type.units.map((u, i) => (
            <option key={u.name} value={i + 1}>
              unit {u.name}
            </option>
          ))}
          <option value="">all {type.units.length} units</option>
        </Choice>
      )}
      <Button variant="solid" disabled={busy} onClick={() => void start()}>
        Try this chip
      </Button>
    </Flex>
  );
}

/** Makes the job, lays it out, and puts it on the shelf; its id. */
async function jobFor(part: PartType, units: readonly number[]): Promise<string> {
  const job = tryPart(part, units);
  if (!job) throw new Error(`${part.id} cannot be tried`);
  const reading = await stages().read(job.sheet);
  const wrong = reading.findings.find(isError);
  if (wrong) throw new Error(says(wrong));
  const netlist = reading.design.netlist as Netlist;
  const { packing, findings } = await runLong('pack', new AbortController().signal, (api) =>
    api.pack(netlist, job.family, noRules),
  );
  const { edit, findings: more } = packing ? layOut(packing, netlist) : { edit: null, findings };
  const applied = edit && applyEdit(job, edit);
  if (!applied?.ok) throw new Error([...findings, ...more].map(says).join(' '));
  return shelf.add(applied.job);
}
