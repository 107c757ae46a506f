import { type BringIn, bringInEndpoints } from '../../contract/index.ts';
import type { Agent } from './test-server.ts';

/** The steps by which somebody brings a file in, each of which has to get through. */
export function bringingIn(by: () => Agent) {
  const one = async (id: string): Promise<BringIn> =>
    bringInEndpoints.one.answer.parse((await by().get(`/api/bring-ins/${id}`).expect(200)).body).bringIn;
  return {
    one,
    /** @param file its lines, or all of it */
    begun: async (kind: string, file: readonly string[] | string | Buffer, name = `${kind}.csv`): Promise<BringIn> => {
      const bytes = Buffer.isBuffer(file) ? file : Buffer.from(typeof file === 'string' ? file : file.join('\r\n'));
      const { body } = await by().post('/api/bring-ins').field('kind', kind).attach('file', bytes, name).expect(200);
      return one(body.id);
    },
    settled: async (now: BringIn, input: object): Promise<BringIn> => {
      const sent = { version: now.version, ...input };
      return (await by().put(`/api/bring-ins/${now.id}`).send(sent).expect(200)).body.bringIn;
    },
    broughtIn: async (now: BringIn, counts = now.counts): Promise<BringIn> => {
      const sent = { version: now.version, counts };
      return (await by().post(`/api/bring-ins/${now.id}/bring-in`).send(sent).expect(200)).body.bringIn;
    },
    /** What is said of it. */
    undo: async ({ changeId }: BringIn): Promise<string> =>
      (await by().post(`/api/changes/${changeId}/undo`).expect(200)).body.said,
  };
}
