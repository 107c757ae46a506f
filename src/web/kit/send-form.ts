import { type Problem, problemOf, readProblem } from '../../contract/problems.ts';
import { ProblemError } from './api.ts';

/**
 * Sends a form with a file. `fetch` does not tell how far that is; XMLHttpRequest does.
 * @throws ProblemError when it is refused, or does not get through
 */
export function sendForm<Answer>(
  path: string,
  form: FormData,
  onProgress: (share: number) => void,
  besides: Readonly<Record<string, string>> = {},
): Promise<Answer> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open('POST', `/api${path}`);
    for (const [name, value] of Object.entries(besides)) request.setRequestHeader(name, value);
    request.responseType = 'json';
    request.upload.onprogress = ({ loaded, total }) => onProgress(total === 0 ? 0 : loaded / total);
    request.onload = () => {
      if (request.status < 300) return resolve(request.response as Answer);
      reject(new ProblemError(readProblem(request.response) ?? broken(request.status)));
    };
    request.onerror = () => reject(new ProblemError(broken(0)));
    request.send(form);
  });
}

function broken(status: number): Problem {
  const detail = 'The file did not get through. Nothing is lost: send it again in a moment.';
  return status === 0 ? problemOf('no-connection', detail) : { ...problemOf('broken', detail), status };
}
