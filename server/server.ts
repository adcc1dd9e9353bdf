import { fileURLToPath } from 'node:url';
import express, { type Express } from 'express';
import helmet from 'helmet';

const dist = fileURLToPath(new URL('../dist', import.meta.url));

/** Serves the built application. Nothing that a person brings in ever reaches this server: it only hands out files. */
export function makeServer(root = dist): Express {
  const app = express();
  app.disable('x-powered-by');
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
  app.use('/assets', express.static(`${root}/assets`, { immutable: true, maxAge: '1y', fallthrough: false }));
  app.use(express.static(root, { index: 'index.html', maxAge: 0 }));
  app.use('/demo', (_request, response) => void response.status(404).type('text').send('no such demo file'));
  app.get('/{*splat}', (_request, response) => response.sendFile('index.html', { root }));
  return app;
}
