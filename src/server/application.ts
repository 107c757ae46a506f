import { timingSafeEqual } from 'node:crypto';
import { existsSync, readdirSync } from 'node:fs';
import { extname, join } from 'node:path';
import compression from 'compression';
import express, { type Express, type RequestHandler, type Response } from 'express';
import helmet from 'helmet';
import { pinoHttp } from 'pino-http';
import { type ApiParts, api } from './api.ts';
import { isSecure } from './platform/http/addresses.ts';
import { LANE_HEADER } from './platform/http/heavy-lane.ts';
import { noSuchRoute, problems } from './platform/http/problems.ts';

/** Bytes from which on an answer is packed (gzip, RFC 9110, section 8.4.1.3), and how hard: most of the gain for a third of the work. */
const LEAST_PACKED = 4096;
const PACKING = 4;

interface ApplicationOptions {
  /** Folder of the built browser side; null to serve the API alone. */
  readonly webFolder: string | null;
  /** For a heavy lane: the key that the front shows with each request. */
  readonly laneKey: string | null;
}

/** The whole web application: the API, and the built browser side where there is one. */
export function application(parts: ApiParts, { webFolder, laneKey }: ApplicationOptions): Express {
  const app = express();
  app.disable('x-powered-by');
  // What stands behind a link, or an account, is no matter for whoever searches.
  app.use((_request, response, next) => {
    response.setHeader('X-Robots-Tag', 'noindex, nofollow');
    next();
  });
  app.set('trust proxy', parts.addresses.proxies);
  if (laneKey !== null) app.use(fromFrontOnly(laneKey));
  app.use(
    helmet({
      // Over plain http on loopback there is nothing to be strict about.
      strictTransportSecurity: isSecure(parts.addresses),
      contentSecurityPolicy: {
        directives: {
          defaultSrc: ["'self'"],
          // Styles in attributes come from charts and from positions computed while dragging; scripts never do.
          styleSrc: ["'self'", "'unsafe-inline'"],
          fontSrc: ["'self'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          workerSrc: ["'self'", 'blob:'],
          upgradeInsecureRequests: null,
        },
      },
    }),
  );
  app.use(
    pinoHttp({
      logger: parts.log,
      autoLogging: { ignore: (request) => request.url?.startsWith('/api/health') ?? false },
      // No headers: they hold the cookie, which is as good as a password.
      serializers: {
        // Nor what opens something for whoever has it.
        req: ({ id, method, url, remoteAddress }) => ({ id, method, url: withoutKeys(String(url)), remoteAddress }),
        res: ({ statusCode }) => ({ statusCode }),
      },
      customLogLevel: ({ url, method }, { statusCode }, error) => {
        if (error || statusCode >= 500) return 'error';
        const isWrongPassword = statusCode === 401 && method === 'POST' && url === '/api/session';
        return isWrongPassword || [403, 421, 429].includes(statusCode) ? 'warn' : 'debug';
      },
    }),
  );
  // What comes packed from the heavy lane, and what says that it stays as it is (the live stream), is passed as it is.
  app.use('/api', compression({ threshold: LEAST_PACKED, level: PACKING }), api(parts));
  if (webFolder && existsSync(join(webFolder, 'index.html'))) {
    app.use('/assets', packedParts(join(webFolder, 'assets')));
    app.use('/assets', express.static(join(webFolder, 'assets'), { index: false, maxAge: '1y', immutable: true }));
    // What keeps its name from version to version is asked for again: the page's theme, its icons, the service worker.
    app.use(express.static(webFolder, { index: false, cacheControl: false, setHeaders: alwaysAskedFor }));
    // A part of the application that is not there must not answer with its first page.
    app.use('/assets', noSuchRoute);
    app.get('/{*path}', (_request, response) => {
      response.setHeader('Cache-Control', 'no-cache');
      response.sendFile('index.html', { root: webFolder });
    });
  }
  app.use(problems(parts.log));
  return app;
}

const alwaysAskedFor = (response: Response): void => void response.setHeader('Cache-Control', 'no-cache');

/** Parts of the browser side that the build has packed are sent so to whoever can unpack them. */
function packedParts(folder: string): RequestHandler {
  const packed = new Set(existsSync(folder) ? readdirSync(folder).filter((name) => name.endsWith('.gz')) : []);
  return (request, response, next) => {
    const name = request.path.slice(1);
    if (packed.has(`${name}.gz`)) {
      response.vary('Accept-Encoding');
      if (request.acceptsEncodings('gzip')) {
        response.set('Content-Encoding', 'gzip').type(extname(name));
        request.url = `/${name}.gz`;
      }
    }
    next();
  };
}

/** Whoever else reaches the lane on this machine finds nothing there. */
function fromFrontOnly(laneKey: string): RequestHandler {
  const key = Buffer.from(laneKey);
  return (request, response, next) => {
    const shown = Buffer.from(String(request.headers[LANE_HEADER] ?? ''));
    if (shown.length === key.length && timingSafeEqual(shown, key)) return next();
    response.status(404).end();
  };
}

/** An address without what opens something: of a calendar, and of mails that are not wanted any more. */
function withoutKeys(url: string): string {
  return url.replace(/([?&]key=)[^&]+/g, '$1…').replace(/(\/no-mails\/)[^/?]+/g, '$1…');
}
