import { useQuery } from '@tanstack/react-query';

/** A sample as the server lists it. */
export interface SampleName {
  readonly id: string;
  readonly name: string;
}

async function get(path: string): Promise<Response> {
  const answer = await fetch(path);
  if (!answer.ok) throw new Error(`${path} answered ${answer.status}`);
  return answer;
}

/** The names of the sample jobs that the server has. */
export function useSamples() {
  return useQuery({
    queryKey: ['samples'],
    queryFn: async () => (await (await get('/api/samples')).json()) as SampleName[],
    retry: 1,
  });
}

/** The text of a sample's job file. */
export async function sampleText(id: string): Promise<string> {
  return (await get(`/api/samples/${encodeURIComponent(id)}`)).text();
}
