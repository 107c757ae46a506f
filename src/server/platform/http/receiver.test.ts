import { IncomingMessage, ServerResponse } from 'node:http';
import { Socket } from 'node:net';
import { tmpdir } from 'node:os';
import type { Request, Response } from 'express';
import { describe, expect, it } from 'vitest';
import { readJson } from './body.ts';
import { receiver } from './receiver.ts';

/** A request that came whole, and whose sender was gone before it was read. */
function cutOff(mediaType: string): IncomingMessage {
  const request = new IncomingMessage(new Socket());
  request.headers = { 'content-type': mediaType, 'content-length': '12' };
  request.complete = true;
  request.destroy();
  return request;
}

// A turn that never ends keeps all others of the same person waiting.
describe('what is sent by whoever was cut off before it was read', () => {
  it('is no file that is waited for', async () => {
    const request = cutOff('multipart/form-data; boundary=x');
    const received = receiver(tmpdir(), 1000)(request as Request, new ServerResponse(request) as Response);
    await expect(received).rejects.toMatchObject({ message: expect.stringMatching(/broke off/) });
  });

  it('is no body that is waited for', async () => {
    const request = cutOff('application/json');
    const response = new ServerResponse(request) as Response;
    await expect(readJson(request as Request, response, 1000)).resolves.toBeUndefined();
  });
});
