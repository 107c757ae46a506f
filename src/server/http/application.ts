import { existsSync } from 'node:fs';
import { join } from 'node:path';
import express, { type Express } from 'express';
import helmet from 'helmet';
import { pinoHttp } from 'pino-http';
import { api, type ServerParts } from './api.ts';
import { problems } from './problems.ts';

/** The whole web application: the API, and the built browser side where there is one. */
export function application(parts: ServerParts, webFolder: string | null): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(
    helmet({
      // Plain http on loopback: a stricter transport is the business of the proxy in front.
      strictTransportSecurity: false,
      contentSecurityPolicy: {
        directives: {
          defaultSrc: ["'self'"],
          // Styles in attributes come from charts and from positions computed while dragging; scripts never do.
          styleSrc: ["'self'", "'unsafe-inline'"],
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
      customLogLevel: (_request, response, error) => (error || response.statusCode >= 500 ? 'error' : 'debug'),
    }),
  );
  app.use('/api', api(parts));
  if (webFolder && existsSync(join(webFolder, 'index.html'))) {
    app.use(express.static(webFolder, { index: false, maxAge: '1y', immutable: true }));
    app.get('/{*path}', (_request, response) => {
      response.setHeader('Cache-Control', 'no-cache');
      response.sendFile('index.html', { root: webFolder });
    });
  }
  app.use(problems(parts.log));
  return app;
}
