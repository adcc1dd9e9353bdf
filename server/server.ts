import { fileURLToPath } from 'node:url';
import express, { type Express, type RequestHandler } from 'express';
import helmet from 'helmet';
import { cameraHttp } from './devices/cameraHttp.ts';
import { cutterHttp } from './devices/cutterHttp.ts';
import { drawPages } from './devices/drawPages.ts';
import { printerHttp } from './devices/printerHttp.ts';
import { StandInCutter } from './devices/standInCutter.ts';
import { StandInPrinter } from './devices/standInPrinter.ts';

const dist = fileURLToPath(new URL('../dist', import.meta.url));

/** What the stand-in cutter can reach, mm. */
export const CUT_AREA = { widthMm: 305, heightMm: 610 } as const;

const HERE = /^(?:localhost|127\.0\.0\.1|\[::1\])(?::\d+)?$/;

/** Answers only what was asked of this machine by its own name, and orders only from its own pages: a name of another site that leads here is not one. */
const onlyFromHere: RequestHandler = (request, response, next) => {
  const { host = '', origin } = request.headers;
  const isOwn = origin === undefined || (URL.canParse(origin) && new URL(origin).host === host);
  if (HERE.test(host) && isOwn) next();
  else response.status(403).type('text').send('Limner answers on this machine only.');
};

/** Serves the built application and the stand-in machines. Nothing that a person brings in leaves the machine: what reaches this server are programs for the cutter and pages for the printer. */
export function makeServer(root = dist, cutter = new StandInCutter(CUT_AREA), printer = new StandInPrinter(drawPages)): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(onlyFromHere);
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          // Element Plus places its floating parts by style attributes.
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'blob:', 'data:'],
          fontSrc: ["'self'", 'data:'],
          connectSrc: ["'self'"],
          workerSrc: ["'self'", 'blob:'],
          objectSrc: ["'none'"],
          baseUri: ["'none'"],
          formAction: ["'none'"],
          frameAncestors: ["'none'"],
        },
      },
      strictTransportSecurity: false,
      crossOriginEmbedderPolicy: false,
    }),
  );
  // The polygon library builds its calls from text when it starts. It runs in the engine's worker alone, which sees no page and takes no text as code; its own answer says that it may.
  app.use('/assets', (request, response, next) => {
    const policy = response.getHeader('Content-Security-Policy');
    if (/^\/worker-[\w-]+\.js$/.test(request.path) && typeof policy === 'string') response.setHeader('Content-Security-Policy', policy.replace("'wasm-unsafe-eval'", "'wasm-unsafe-eval' 'unsafe-eval'"));
    next();
  });
  app.use('/devices/cutter', cutterHttp(cutter, printer));
  app.use('/devices/printer', printerHttp(printer));
  app.use('/devices/camera', cameraHttp(printer));
  app.use('/assets', express.static(`${root}/assets`, { immutable: true, maxAge: '1y', fallthrough: false }));
  app.use(express.static(root, { index: 'index.html', maxAge: 0 }));
  app.use('/demo', (_request, response) => void response.status(404).type('text').send('no such demo file'));
  app.get('/{*splat}', (_request, response) => response.sendFile('index.html', { root }));
  return app;
}
