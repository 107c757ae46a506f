import type { TestServer } from './test-server.ts';

/** The stream of what is told live to a browser in which somebody has stepped in by name. */
export async function listenAs(server: TestServer, name: string) {
  const { id } = await server.person(name);
  const session = await fetch(`${server.address}/api/session/demo`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Origin: server.address },
    body: JSON.stringify({ personId: id }),
  });
  const cookie = session.headers.getSetCookie()[0]?.split(';')[0] ?? '';
  const end = new AbortController();
  const response = await fetch(`${server.address}/api/events`, { headers: { cookie }, signal: end.signal });
  const stream = { heard: '', close: () => end.abort() };
  void (async () => {
    const decoder = new TextDecoder();
    try {
      for await (const chunk of response.body ?? []) stream.heard += decoder.decode(chunk);
    } catch (error) {
      if (!end.signal.aborted) throw error;
    }
  })();
  return stream;
}
